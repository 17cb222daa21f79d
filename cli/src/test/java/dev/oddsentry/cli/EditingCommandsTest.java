package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.cli.common.ExitStatus;
import java.io.IOException;
import java.nio.file.Files;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The same of those that edit rules, and say for whom they are. */
class EditingCommandsTest extends AgainstAService {
    @Test
    void aPersonalCopyIsNamedAndListed() {
        answer(
                "POST /api/rules/day/preview",
                "{\"rowsRead\":9,\"tookMillis\":3,\"exceptions\":1,\"bySeverity\":{\"WARNING\":1},\"wouldReport\":1,\"audiences\":[],\"columns\":[],\"rows\":[],"
                        + "\"copy\":\"Holm\",\"copies\":[{\"key\":\"Holm\",\"to\":[\"holm@skerryline.example\"],\"exceptions\":1,\"wouldReport\":1,\"failure\":null},"
                        + "{\"key\":\"Vik\",\"to\":[],\"exceptions\":0,\"wouldReport\":0,\"failure\":null},"
                        + "{\"key\":\"Ytre\",\"to\":[],\"exceptions\":0,\"wouldReport\":0,\"failure\":\"No address.\"}]}");
        assertThat(odd("preview", "day").out())
                .contains(
                        "3 personal copies:",
                        "Holm: 1 exception, would report 1 to holm@skerryline.example",
                        "Vik: 0 exceptions, would report 0 to the rule's recipients",
                        "Ytre: would fail: No address.",
                        "Personal copy Holm:");
        answer(
                "POST /api/rules/day/preview?copy=Gr%C3%A5vik%20%26%20Holm",
                "{\"audiences\":[],\"columns\":[],\"rows\":[]}");
        odd("preview", "day", "--copy", "Gråvik & Holm");
        assertThat(asked.getLast()).contains("copy=Gr%C3%A5vik%20%26%20Holm");

        answer("GET /api/rules/day/checks", "{\"checks\":[]}");
        assertThat(odd("checks", "day", "--copies").out()).contains("day has no checked personal copies.");
        answer("GET /api/rules/day/checks", "{\"checks\":[{\"id\":\"c1\",\"slot\":\"2026-05-05T04:10:00Z\"}]}");
        answer(
                "GET /api/checks/c1/copies",
                "[{\"copy\":\"Holm\",\"state\":\"FIRED\",\"to\":[\"holm@skerryline.example\"],\"rowsRead\":9,\"exceptions\":1,\"updates\":1,\"reason\":null},"
                        + "{\"copy\":\"Vik\",\"state\":\"FAILED\",\"to\":[],\"reason\":\"division by zero\"}]");
        assertThat(odd("checks", "day", "--copies", "--csv").out())
                .contains("For,Outcome,Rows,Exceptions,Reported,To,Reason", "Holm,fired,9,1,1,holm@skerryline.example,")
                .contains("Vik,failed,,,,the rule's recipients,division by zero");
        answer(
                "POST /api/rules/day/checks",
                "{\"state\":\"PARTLY_FAILED\",\"rowsRead\":9,\"exceptions\":1,\"updates\":1,\"reason\":\"1 of 2 personal copies failed (Vik: division by zero).\"}");
        var partly = odd("check", "day");
        assertThat(partly.status()).isEqualTo(1);
        assertThat(partly.out())
                .contains(
                        "day partly failed: 9 rows read, 1 exception, 1 reported. 1 of 2 personal copies failed (Vik");
    }

    @Test
    void aDraftIsLaidBesideARuleShownSwitchedToAndThrownAway() throws IOException {
        String draft =
                "{\"version\":2,\"baseRevision\":6,\"revision\":7,\"author\":\"Ines Holm\",\"at\":\"2026-05-05T04:10:00Z\",\"effect\":\"OTHER_CONDITIONS\","
                        + "\"document\":{\"name\":\"late\",\"exceptions\":\"delay_min > 30\",\"memory\":{\"key\":[\"sailing\"],\"open_after\":\"2 checks\"}}}";
        answer("PUT /api/rules/late/draft", draft);
        answer("GET /api/rules/late/draft", draft);
        answer(
                "GET /api/definitions/rule/late.json",
                "{\"name\":\"late\",\"exceptions\":\"delay_min > 15\",\"memory\":{\"key\":[\"sailing\"]}}");
        var file = Files.writeString(folder.resolve("late.rule.yaml"), "kind: rule\nname: late\n");
        var laid = odd("draft", "late", "--file", file.toString());
        assertThat(laid.status()).isZero();
        assertThat(asked).anyMatch(call -> call.startsWith("PUT /api/rules/late/draft") && call.contains("name: late"));
        assertThat(laid.out())
                .contains(
                        "Draft changes of late by Ines Holm,",
                        "version 2, made from revision 6.",
                        "The rule has a newer revision, 7",
                        "  - exceptions: delay_min > 15",
                        "  + exceptions: delay_min > 30",
                        "  + memory, open_after: 2 checks",
                        "When applied: The conditions changed: the next check evaluates again; what it finds is reported")
                .doesNotContain("key");
        assertThat(laid.out()).contains("--file FILE --over 2");
        answer("PUT /api/rules/late/draft?version=2", draft);
        assertThat(odd("draft", "late", "--file", file.toString(), "--over", "2")
                        .status())
                .isZero();
        assertThat(asked).anyMatch(call -> call.startsWith("PUT /api/rules/late/draft?version=2"));
        assertThat(odd("draft", "late").out()).isEqualTo(laid.out());
        assertThat(odd("draft", "late", "--json").out()).contains("\"version\"");

        answer(
                "POST /api/rules/late/draft/apply?reason=in%20winter&treatAsKnown=true",
                "{\"revision\":8,\"effect\":\"OTHER_CONDITIONS\"}");
        assertThat(odd("draft", "late", "--apply", "--reason", "in winter", "--treat-as-known")
                        .out())
                .contains("The draft changes of late are applied, as revision 8.", "treated as known");
        answer("DELETE /api/rules/late/draft", "");
        assertThat(odd("draft", "late", "--discard").out()).contains("The draft changes of late are discarded.");
        assertThat(odd("draft", "late", "--discard", "--apply").status())
                .as("one thing at a time")
                .isEqualTo(2);

        refuse(
                "PUT /api/rules/late/draft",
                422,
                "{\"detail\":\"There is one thing to put right.\",\"problems\":[{\"weight\":\"ERROR\","
                        + "\"message\":\"unknown column \\\"dely\\\"\",\"field\":\"exceptions\",\"place\":{\"line\":2,\"column\":1,\"offset\":11,\"length\":4},\"suggestion\":null}]}");
        var refused = odd("draft", "late", "--file", file.toString());
        assertThat(refused.status()).isEqualTo(ExitStatus.INVALID);
        assertThat(refused.err()).contains("late.rule.yaml:2:1: unknown column");
    }

    @Test
    void whoIsAddedIsSaidAndMayBeSentWhatIsOpen() throws IOException {
        var file = Files.writeString(folder.resolve("late.rule.yaml"), "kind: rule\nname: late\n");
        answer(
                "PUT /api/definitions?reason=",
                "{\"kind\":\"rule\",\"name\":\"late\",\"changed\":true,\"revision\":3,\"effect\":\"NO_EFFECT\",\"added\":[\"siv@skerryline.example\"],\"warnings\":[]}");
        var saved = odd("push", file.toString());
        assertThat(saved.out()).contains("Saved rule late as revision 3.");
        assertThat(saved.err())
                .contains(
                        "siv@skerryline.example is sent only updates from now on. To send the open findings: odd send-open late siv@");
        answer("POST /api/rules/late/send-open", "{\"messages\":2}");
        assertThat(odd("send-open", "late", "siv@skerryline.example").out())
                .contains("The open findings of late are sent to siv@skerryline.example in 2 messages.");
        assertThat(asked.getLast()).contains("{\"to\":\"siv@skerryline.example\"}");
    }

    @Test
    void revisionsAreListedAndGoneBackTo() {
        answer(
                "GET /api/definitions/query/lately/revisions",
                "{\"next\":null,\"revisions\":[{\"revision\":2,\"reason\":\"wider window\",\"author\":\"Ines Holm\",\"at\":\"2026-05-05T04:10:00Z\"},"
                        + "{\"revision\":1,\"reason\":\"\",\"author\":null,\"at\":\"2026-05-04T04:10:00Z\"}]}");
        assertThat(odd("revisions", "lately", "--kind", "query", "--csv").out())
                .contains("Revision,Saved,By,Reason", ",Ines Holm,wider window");
        answer(
                "POST /api/definitions/query/lately/revisions/1/restore?reason=too%20slow",
                "{\"revision\":3,\"changed\":true,\"effect\":\"OTHER_CONDITIONS\"}");
        var back = odd("revisions", "lately", "--kind", "query", "--back-to", "1", "--reason", "too slow");
        assertThat(back.err())
                .contains(
                        "Restored revision 1 of lately as revision 3.",
                        "The conditions changed: the next check evaluates again");
        answer("GET /api/definitions/rule/late/revisions", "{\"next\":null,\"revisions\":[]}");
        answer(
                "POST /api/definitions/rule/late/revisions/4/restore?reason=",
                "{\"revision\":4,\"changed\":false,\"effect\":\"NO_EFFECT\"}");
        assertThat(odd("revisions", "late", "--back-to", "4").err())
                .contains("late is already the same as revision 4.");
    }

    @Test
    void aRoundUpIsListedShownSentAndPaused() {
        answer(
                "GET /api/round-ups",
                "[{\"name\":\"week\",\"title\":\"The week\",\"rules\":[\"late\",\"gear\"],\"to\":[\"lead@skerryline.example\"],\"when\":\"every week on Monday\","
                        + "\"atOnce\":\"critical\",\"paused\":true,\"nextSlot\":null}]");
        assertThat(odd("round-ups", "--csv").out())
                .contains("week,The week,\"late, gear\",lead@skerryline.example,every week on Monday,critical,paused");
        answer(
                "GET /api/round-ups/week/preview",
                "{\"subject\":\"2 warnings: The week\",\"text\":\"The week\\n2 new\\n\"}");
        assertThat(odd("round-up", "week").out()).contains("Subject: 2 warnings: The week", "2 new");
        answer("GET /api/round-ups/quiet/preview", "{\"subject\":null,\"text\":\"\"}");
        assertThat(odd("round-up", "quiet").out()).contains("quiet has nothing to report now.");
        answer("POST /api/round-ups/week/send", "{\"message\":null}");
        assertThat(odd("round-up", "week", "--send").out()).contains("nothing to report, so nothing was sent");
        answer("POST /api/round-ups/week/pause", "{}");
        assertThat(odd("round-up", "week", "--pause").out()).contains("week is paused.");
        assertThat(odd("round-up", "week", "--pause", "--send").status()).isEqualTo(2);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "run-query q                        | -",
                "run-query q --rows 900             | \"rows\":900",
                "run-query q --csv                  | \"rows\":20000",
                "run-query q --json --rows 5        | \"rows\":5",
                "run-query q --zone Asia/Tokyo      | \"zone\":\"Asia/Tokyo\"",
            })
    void aQueryByHandAsksForRowsAndZoneOnlyAsFarAsTheyAreGiven(String command, String expected) {
        answer("GET /api/definitions/query/q", "kind: query");
        answer(
                "POST /api/query-runs",
                "{\"rowsRead\":1321,\"tookMillis\":3,\"zone\":\"Europe/Oslo\",\"columns\":[{\"label\":\"S\"}],\"rows\":[[\"SK-1\"]]}");
        var ran = odd(command.split(" "));
        assertThat(ran.err())
                .contains("1321 rows in 3 ms, in time zone Europe/Oslo", "the first 1 shown; --rows shows more");
        String body = asked.getLast();
        if (expected == null) assertThat(body).doesNotContain("\"rows\"", "\"zone\"");
        else assertThat(body).contains(expected);
    }

    @Test
    void aRuleWhoseScheduleIsOverIsListedAsEnded() {
        answer(
                "GET /api/rules",
                "[{\"name\":\"late\",\"title\":\"Late\",\"state\":\"ACTIVE\",\"ended\":true,\"zone\":\"Europe/Oslo\",\"open\":{},\"latest\":[],\"nextSlot\":null}]");
        assertThat(odd("rules").out()).contains("ended").doesNotContain("active");
    }

    @Test
    void aSavedFilterOfTheConsoleIsUsedByItsName() {
        answer("GET /api/rules", """
                [{"name":"late","title":"Late","state":"ACTIVE","ended":false,"zone":"Europe/Oslo","open":{},"latest":[],"nextSlot":null},
                 {"name":"fuel","title":"Fuel","state":"PAUSED","ended":false,"zone":"Europe/Oslo","open":{},"latest":[],"nextSlot":null}]""");
        answer(
                "GET /api/filters",
                "[{\"name\":\"Paused ones\",\"filter\":\"state=PAUSED\",\"team\":\"Crew\",\"savedBy\":\"Ines Holm\"}]");
        assertThat(odd("rules", "--saved", "Paused ones").out())
                .contains("fuel")
                .doesNotContain("late");
        assertThat(odd("rules", "--saved", "Paused").err())
                .contains("There is no saved filter \"Paused\". Saved: Paused ones");
    }

    @Test
    void aRulesChecksAreListedInItsOwnZone() {
        answer("GET /api/rules", """
                [{"name":"late","title":"Late","state":"ACTIVE","ended":false,"zone":"Asia/Kathmandu","open":{},
                  "latest":[{"slot":"2020-03-01T18:30:00Z","state":"DONE"}],"nextSlot":"2020-03-02T18:30:00Z"}]""");
        assertThat(odd("rules").out()).contains("Mon 2 Mar 2020 00:15 ", "Tue 3 Mar 2020 00:15 ");
    }

    @Test
    void theEffectOfAThresholdNamesWhatGetsAnotherSeverity() {
        answer(
                "POST /api/thresholds/late_minutes/effect",
                "[{\"rule\":\"late\",\"title\":\"Late\",\"before\":3,\"after\":3,\"otherSeverity\":2,\"refused\":null}]");
        assertThat(odd("set-threshold", "late_minutes", "20", "--effect").out()).contains("OTHER SEVERITY", "2");
    }
}
