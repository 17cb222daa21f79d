package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Commands that show what the service answers, as people read it. Answers have names of the published description alone. */
class ReadingCommandsTest extends AgainstAService {
    private static List<String> lines(String text) {
        return text.lines().map(String::stripTrailing).toList();
    }

    @Test
    void ruleIsExplainedInLabelledLinesInItsZone() {
        answer("GET /api/rules/late-sailings", """
                {"rule": {"name": "late-sailings", "title": "Late sailings without a reason", "state": "ACTIVE", "revision": 4,
                          "owner": "Traffic reporting", "zone": "Europe/Oslo", "to": ["ines.holm@skerryline.example"]},
                 "text": {"sentence": "late by more than 15 min", "query": "sailings-lately", "source": "ferry",
                          "parameters": {"since": "today - 7 days"}, "grouped": false, "mode": "INCREMENTAL", "openAfter": "2 checks",
                          "clearAfter": "3 checks", "report": ["new", "returned", "worsened"], "key": ["sailing_id"],
                          "thresholds": ["late_minutes"], "schedule": "every day at 05:40", "fireSentence": "at least 3 findings",
                          "severity": [{"severity": "CRITICAL", "sentence": "late by at least 45 min"}, {"severity": "WARNING", "sentence": null}],
                          "copies": null},
                 "nextDates": ["2026-11-30T04:40:00Z", "2026-12-01T04:40:00Z", "2026-12-02T04:40:00Z", "2026-12-03T04:40:00Z"]}
                """);
        assertThat(lines(odd("explain", "late-sailings").out()))
                .containsExactly(
                        "Late sailings without a reason (active, revision 4, owner Traffic reporting)",
                        "  Exception     late by more than 15 min",
                        "  Severity      critical: late by at least 45 min; otherwise warning",
                        "  Open after    2 checks",
                        "  Clear after   3 checks",
                        "  Reports       new, returned and worsened findings; one finding per sailing_id",
                        "  Fire only if  at least 3 findings",
                        "  Query         sailings-lately on ferry, since = today - 7 days",
                        "  Thresholds    late_minutes",
                        "  Schedule      every day at 05:40",
                        "  Next checks   Mon 30 Nov 05:40, Tue 1 Dec 05:40, Wed 2 Dec 05:40 (Europe/Oslo)",
                        "  Recipients    ines.holm@skerryline.example");
    }

    @Test
    void ruleThatReportsEverythingOfPersonalCopiesSaysSo() {
        answer("GET /api/rules/load", """
                {"rule": {"title": "Load", "state": "DRAFT", "revision": 1, "owner": "Crew", "zone": "UTC", "to": []},
                 "text": {"sentence": "booked is missing", "query": "load", "source": "ferry", "parameters": {}, "grouped": true,
                          "mode": "FULL", "key": [], "severity": [], "thresholds": [],
                          "copies": {"from": "masters", "key": "ship", "address": "mail"}}, "nextDates": []}
                """);
        assertThat(odd("explain", "load").out())
                .contains(
                        "Reports       all open findings, every time; one finding per whole result",
                        "Copies        one per ship of query masters, sent to its mail; without one, to the recipients",
                        "Recipients    none");
    }

    @Test
    void findingIsExplainedWithItsPartsHandlingAndTimeline() {
        answer("GET /api/rules/late/explanation?key=SK-412&copy=Varsund", """
                {"rule": "late", "zone": "Europe/Oslo", "identity": "SK-412", "reason": "It is open.",
                 "now": {"handling": [
                    {"kind": "TAKE", "by": "Ines Holm", "note": "", "until": null},
                    {"kind": "SNOOZE", "by": "Per Aune", "note": "fog", "until": "2026-12-01T23:00:00Z"},
                    {"kind": "ACCEPT", "by": "Siv Tangen", "note": "agreed", "until": null}]},
                 "present": {"verdict": "FALSE", "severity": null, "failure": null, "cells": [{"column": "sailing", "label": "Sailing", "text": "SK-412"}, {"column": "reason", "label": "Reason", "text": null}],
                    "parts": [{"text": "delay_min > 15", "verdict": "TRUE"}, {"text": "reason is null", "verdict": "FALSE"},
                              {"text": "status <> 'x'", "verdict": "UNKNOWN"}]},
                 "events": [{"at": "2026-11-24T04:40:00Z", "text": "opened as warning"}]}
                """);
        assertThat(lines(odd("explain", "late", "--key", "SK-412", "--copy", "Varsund")
                        .out()))
                .containsExactly(
                        "SK-412 in late (times in Europe/Oslo)",
                        "  It is open.",
                        "  Taken by Ines Holm.",
                        "  Snoozed by Per Aune, until Wed 2 Dec 2026 00:00: fog",
                        "  Accepted by Siv Tangen: agreed",
                        "  In the current result it is not an exception: Sailing SK-412, Reason missing",
                        "    true     delay_min > 15",
                        "    false    reason is null",
                        "    unknown  status <> 'x'",
                        "  Timeline:",
                        "    Tue 24 Nov 2026 05:40  opened as warning");
    }

    @Test
    void findingOfASourceThatDoesNotAnswerSaysThat() {
        answer(
                "GET /api/rules/late/explanation?key=SK-1",
                "{\"rule\":\"late\",\"zone\":\"UTC\",\"identity\":\"SK-1\",\"reason\":\"It is open.\",\"now\":null,\"events\":[],"
                        + "\"present\":{\"failure\":\"no answer\",\"verdict\":null}}");
        assertThat(odd("explain", "late", "--key", "SK-1").out()).contains("The source cannot be read now: no answer");
        answer(
                "GET /api/rules/late/explanation?key=SK-2",
                "{\"rule\":\"late\",\"zone\":\"UTC\",\"identity\":\"SK-2\",\"reason\":\"No check has found it.\",\"now\":null,\"events\":[],"
                        + "\"present\":{\"failure\":null,\"verdict\":null}}");
        assertThat(odd("explain", "late", "--key", "SK-2").out()).contains("The row is not in the current result.");
    }

    @Test
    void dayOfARecipientSaysWhatWasReportedAndWhatWasNot() {
        answer("GET /api/rules/late/reported?to=per.aune%40skerryline.example&on=2026-11-24", """
                {"rule": "late", "zone": "Europe/Oslo", "to": "per.aune@skerryline.example", "on": "2026-11-24", "recipient": false,
                 "checks": [{"slot": "2026-11-24T04:40:00Z", "state": "FAILED", "reason": "no answer"}],
                 "messages": [{"subject": "2 critical", "state": "SENT", "findings": [
                    {"identity": "SK-1", "as": ["new"]}, {"identity": "SK-2", "as": []}]}],
                 "notReported": [{"reason": "reported earlier, on 2026-11-23", "count": 9,
                    "identities": ["a", "b", "c", "d", "e", "f"]}]}
                """);
        assertThat(lines(odd("explain", "late", "--to", "per.aune@skerryline.example", "--on", "2026-11-24")
                        .out()))
                .containsExactly(
                        "per.aune@skerryline.example, late, 2026-11-24 (times in Europe/Oslo)",
                        "  The rule does not send to that address now.",
                        "  Tue 24 Nov 2026 05:40  failed: no answer",
                        "  Reported in \"2 critical\" (sent):",
                        "    SK-1 as new",
                        "    SK-2",
                        "  Open but not in a message that day: reported earlier, on 2026-11-23: a; b; c; d; e; and 4 more");
    }

    @Test
    void backTestComparesThresholdsAndListsSlots() {
        answer("POST /api/rules/late/back-tests", "{\"id\":\"w1\"}");
        answer("GET /api/long-work/w1", """
                {"id": "w1", "state": "DONE", "steps": 30, "stepsDone": 30, "endedAt": "2026-11-24T05:00:00Z",
                 "result": {"warmUp": 1, "beyondStart": "2026-10-01T03:40:00Z", "variants": [
                   {"thresholds": {}, "checks": 30, "messages": 12, "updates": 40, "highestExceptions": 20, "unevaluated": 0, "slots": []},
                   {"thresholds": {"late_minutes": 20}, "checks": 30, "messages": 7, "updates": 21, "highestExceptions": 11, "unevaluated": 2,
                    "slots": [{"slot": "2026-11-23T04:40:00Z", "exceptions": 11, "critical": 2, "updates": 3, "unevaluated": 2}]}]}}
                """);
        var ran = odd("backtest", "late", "--days", "30", "--threshold", "late_minutes=20");
        assertThat(ran.status()).isZero();
        assertThat(asked.getFirst())
                .isEqualTo(
                        "POST /api/rules/late/back-tests {\"days\":30,\"copy\":null,\"thresholds\":{\"late_minutes\":[20]},\"conditions\":[],\"without\":[],\"document\":null}");
        assertThat(ran.out())
                .contains("after 1 warm-up slot.", "The schedule starts", "as saved", "late_minutes 20")
                .containsPattern("as saved +30 +12 +40 +20 +0")
                .containsPattern("late_minutes 20 +30 +7 +21 +11 +2");
        assertThat(odd("backtest", "late", "--slots").out()).containsPattern("late_minutes 20 .* 11 +2 +3 +2");
        odd("backtest", "late", "--without", "open-after,remind-every", "--condition", "delay_min > 5");
        assertThat(asked.stream()
                        .filter(each -> each.contains("/back-tests"))
                        .toList()
                        .getLast())
                .contains("\"without\":[\"OPEN_AFTER\",\"REMIND_EVERY\"]", "\"conditions\":[\"delay_min > 5\"]");
        assertThat(odd("backtest", "late", "--without", "openness").err())
                .contains("\"openness\" is not one of open-after, clear-after, confirm-after, remind-every.");
        assertThat(odd("backtest", "late", "--threshold", "late_minutes=lots").err())
                .contains("\"lots\" is not a number. Example: --threshold late_minutes=20,25,30");
    }

    @Test
    void backTestThatWasStoppedSaysWhoStoppedIt() {
        answer("POST /api/rules/late/back-tests", "{\"id\":\"w2\"}");
        answer(
                "GET /api/long-work/w2",
                "{\"state\":\"STOPPED\",\"endedAt\":\"2026-11-24T05:00:00Z\",\"reason\":\"Stopped by Ines Holm.\"}");
        var ran = odd("backtest", "late");
        assertThat(ran.status()).isEqualTo(1);
        assertThat(ran.err()).contains("The back-test stopped: Stopped by Ines Holm.");
    }

    @Test
    void measurementsAreListedBackfilledAndKept() {
        answer("POST /api/rules/fuel/measurements/backfill", "{\"id\":\"w3\"}");
        answer("GET /api/long-work/w3", "{\"state\":\"DONE\",\"endedAt\":\"2026-11-24T05:00:00Z\"}");
        answer("POST /api/rules/fuel/measurements/keep", "{\"moved\":40}");
        answer("GET /api/rules/fuel/measurements", """
                [{"group": "Terna", "measure": "sum(fuel)", "total": 2, "earlier": false, "points": [
                   {"slot": "2026-11-22T04:40:00Z", "value": 8.25, "backfilled": true},
                   {"slot": "2026-11-23T04:40:00Z", "value": 9, "backfilled": false}]}]
                """);
        var ran = odd("measurements", "fuel", "--backfill-days", "12", "--join", "--points");
        assertThat(ran.err()).contains("40 measurements kept.");
        assertThat(ran.out())
                .containsPattern("sum\\(fuel\\) +Terna +2026-11-22T04:40:00Z +8.25 +backfilled")
                .containsPattern("sum\\(fuel\\) +Terna +2026-11-23T04:40:00Z +9 +measured");
        assertThat(odd("measurements", "fuel").out()).containsPattern("sum\\(fuel\\) +Terna +2 .* 9");
        answer("GET /api/rules/none/measurements", "[]");
        assertThat(odd("measurements", "none").out()
                        + odd("measurements", "none").err())
                .contains("No measurements yet.");
    }

    @Test
    void theHoursOfAWeekAreCountedInTheZoneThatIsAsked() {
        answer("GET /api/week?first=2026-11-23&zone=Europe%2FOslo", """
                {"zone": "Europe/Oslo", "from": "2026-11-22T23:00:00Z", "until": "2026-11-29T23:00:00Z", "hours": [
                   {"from": "2026-11-22T23:00:00Z", "checks": 0, "seconds": 0, "messages": 0, "rules": []},
                   {"from": "2026-11-23T05:00:00Z", "checks": 3, "seconds": 1.5, "messages": 0.25, "rules": []},
                   {"from": "2026-11-29T05:00:00Z", "checks": 1, "seconds": 0, "messages": 0, "rules": []}]}
                """);
        var ran = odd("week", "--first", "2026-11-23", "--zone", "Europe/Oslo");
        assertThat(ran.out())
                .containsPattern("HOUR +MON 23 NOV .* SUN 29 NOV")
                .containsPattern("06:00 +3 +– +– +– +– +– +1")
                .contains("4 checks (Europe/Oslo)")
                .doesNotContain("00:00");
    }

    @Test
    void aNoteIsAddedToTheFindingOfAKey() {
        answer("POST /api/rules/late/handling/notes", "{\"finding\": 7, \"handling\": []}");
        assertThat(odd("note", "late", "48211", "--text", "rang the terminal").out())
                .contains("Note added to 48211.");
        assertThat(odd("note", "late", "48211").err()).contains("--text");
    }

    @Test
    void findingsAreListedWithTheirRowsAndHandling() {
        answer("GET /api/rules/late/findings?state=OPEN", """
                {"total": 7, "columns": [{"name": "sailing", "label": "Sailing", "type": "text"}, {"name": "reason", "label": "Reason", "type": "text"}],
                 "findings": [{"id": 4, "copy": "Varsund", "severity": "CRITICAL", "state": "OPEN", "openedAt": "2026-11-24T04:40:00Z",
                    "reportedAt": null, "handling": [{"kind": "TAKE", "by": "Ines Holm", "note": "", "until": null}],
                    "row": {"sailing": "SK-412", "reason": null}}]}
                """);
        var ran = odd("findings", "late");
        assertThat(lines(ran.out()).getFirst())
                .matches("FOR +SEVERITY +STATE +SINCE +REPORTED +HANDLING +SAILING +REASON");
        assertThat(ran.out()).containsPattern("Varsund .*critical +open .*SK-412 +missing");
        assertThat(ran.err()).contains("Only the first 1 of 7 findings are listed.");
    }

    @Test
    void slotsOfAScheduleAreListedInItsZone() {
        answer("GET /api/dates?count=2&recur=FREQ%3DDAILY&zone=Europe%2FOslo&onHoliday=skip", """
                {"schedule": "every day", "zone": "Europe/Oslo", "ends": true, "warnings": ["no holidays are known after 2027"],
                 "slots": [{"slot": "2026-11-30T04:40:00Z", "local": "2026-11-30T05:40+01:00"}]}
                """);
        var ran =
                odd("dates", "--recur", "FREQ=DAILY", "--zone", "Europe/Oslo", "--count", "2", "--on-holiday", "skip");
        assertThat(ran.out()).containsPattern("Mon 30 Nov 2026 +05:40:00 \\+01:00 +2026-11-30T04:40:00Z");
        assertThat(ran.err())
                .contains(
                        "Warning: no holidays are known after 2027.",
                        "Slots of: every day (Europe/Oslo).",
                        "The schedule ends here.");
        assertThat(odd("dates", "late", "--recur", "FREQ=DAILY").status()).isEqualTo(2);
    }

    private static Instant midnight(String day) {
        return LocalDate.parse(day).atStartOfDay(ZoneId.systemDefault()).toInstant();
    }

    @Test
    void statementTellsWithItsExitStatusWhetherSilenceCanBeTrusted() {
        String asked = "from=" + midnight("2026-11-23") + "&to=" + midnight("2026-11-30");
        answer("GET /api/statements?rule=late&" + asked, """
                {"from": "2026-11-22T23:00:00Z", "to": "2026-11-29T23:00:00Z", "statements": [
                  {"rule": "late", "title": "Late sailings", "zone": "Europe/Oslo", "complete": false,
                   "sentences": ["Since Friday, silence does not mean that there was nothing to report.", "One check failed."]}]}
                """);
        var told = odd("statement", "late", "--from", "2026-11-23", "--to", "2026-11-29");
        assertThat(told.status()).isEqualTo(1);
        assertThat(lines(told.out()).subList(1, 5))
                .containsExactly(
                        "",
                        "Late sailings (late)",
                        "  Since Friday, silence does not mean that there was nothing to report.",
                        "  One check failed.");
        answer("GET /api/statements?" + asked, """
                {"from": "2026-11-22T23:00:00Z", "to": "2026-11-29T23:00:00Z", "statements": [
                  {"rule": "late", "title": "Late sailings", "zone": "Europe/Oslo", "complete": true, "sentences": []}]}
                """);
        assertThat(odd("statement", "--from", "2026-11-23", "--to", "2026-11-29")
                        .status())
                .isZero();
    }

    @Test
    void openFindingsAreCountedOverTime() {
        String query = "days=30&by=TEAM&zone=Europe%2FOslo";
        answer("GET /api/findings/over-time?" + query, """
                {"zone": "Europe/Oslo", "from": "2026-11-01", "until": "2026-11-30", "open": [3, 4, 6], "lines": [
                  {"name": "Crew", "title": "Crew", "open": [3, 4, 6], "opened": 5, "cleared": 2, "agedOut": 1,
                   "medianSeconds": 10800.5, "oldest": "2020-03-01T18:30:00Z"},
                  {"name": "Fleet", "title": "Fleet", "open": [0, 0, 0], "opened": 1, "cleared": 0, "agedOut": 1,
                   "medianSeconds": null, "oldest": null}]}""");
        var shown = odd("findings-over-time", "--days", "30", "--by", "team", "--zone", "Europe/Oslo");
        assertThat(shown.err()).isEmpty();
        assertThat(shown.out().lines().map(line -> line.replaceAll(" +", " ").strip()))
                .containsExactly(
                        "TEAM OPEN 2026-11-01 NOW OPENED CLEARED AGED OUT MEDIAN TIME TO CLEAR OLDEST OPEN SINCE",
                        "Crew 3 6 5 2 1 3 hours Sun 1 Mar 2020 19:30 CET",
                        "Fleet 0 0 1 0 1 – –");
    }
}
