package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.cli.common.ExitStatus;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What each command asks of the API, what it prints of the answer, and its exit status. */
class CommandsTest extends AgainstAService {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "take late 12542 --note rang | {\"key\":[\"12542\"],\"copy\":null,\"kind\":\"TAKE\",\"note\":\"rang\",\"until\":null,\"withdraw\":false} | 12542 is taken.",
                "snooze late Holm 7 --until 2026-06-01 | {\"key\":[\"Holm\",\"7\"],\"copy\":null,\"kind\":\"SNOOZE\",\"note\":\"\",\"until\":\"2026-06-01\",\"withdraw\":false} | Holm, 7 is snoozed until 2026-06-01.",
                "accept late 1 --withdraw | {\"key\":[\"1\"],\"copy\":null,\"kind\":\"ACCEPT\",\"note\":\"\",\"until\":null,\"withdraw\":true} | 1 is no longer accepted.",
            })
    void marksAreSetAndWithdrawn(String command, String body, String said) {
        answer("POST /api/rules/late/handling", "{}");
        var ran = odd(command.split(" "));
        assertThat(ran.out().strip()).isEqualTo(said);
        assertThat(asked).containsExactly("POST /api/rules/late/handling " + body);
        assertThat(ran.status()).isZero();
    }

    @ParameterizedTest
    @CsvSource({
        "stop,    stop,    RUNNING,   STOPPED, 'late stopped: Stopped by Ines Holm.'",
        "approve, approve, AWAITING_APPROVAL, FIRED,   'late fired: 7 rows read, 2 exceptions, 2 reported.'",
        "discard, discard, AWAITING_APPROVAL, STOPPED, 'late stopped: Stopped by Ines Holm.'",
    })
    void theOneCheckThatIsMeantIsMoved(String command, String move, String from, String to, String said) {
        answer(
                "GET /api/rules/late/checks",
                "{\"checks\":[{\"id\":\"c9\",\"state\":\"QUIET\"},{\"id\":\"c7\",\"state\":\"" + from + "\"}]}");
        answer(
                "POST /api/checks/c7/" + move,
                "{\"state\":\"" + to
                        + "\",\"reason\":\"Stopped by Ines Holm.\",\"rowsRead\":7,\"exceptions\":2,\"unknownRows\":0,\"updates\":2}");
        assertThat(odd(command, "late").out().strip()).isEqualTo(said);
        answer("GET /api/rules/late/checks", "{\"checks\":[{\"id\":\"c9\",\"state\":\"QUIET\"}]}");
        var none = odd(command, "late");
        assertThat(none.status()).isEqualTo(1);
        assertThat(none.err())
                .contains("No check of late is " + from.toLowerCase(Locale.ROOT).replace('_', ' '));
    }

    @Test
    void statusSaysWhatNeedsAPersonAndFailsWhereSomethingDoes() {
        String well =
                "{\"node\":\"holm-1\",\"activeRules\":1,\"running\":0,\"due\":0,\"highestLatenessSeconds\":0,\"lastFinished\":null,"
                        + "\"outcomes\":{\"FIRED\":2,\"INCOMPLETE\":1},\"queuedMessages\":0,\"oldestQueuedSeconds\":0,\"problems\":[]}";
        answer("GET /api/status", well);
        var ran = odd("status");
        assertThat(ran.status()).isZero();
        assertThat(ran.out())
                .contains(
                        "Node holm-1, 1 active rule.", "2 fired", "1 incomplete", "0 messages queued.", "No problems.");
        answer(
                "GET /api/status",
                well.replace("\"problems\":[]", "\"problems\":[\"1 check is awaiting approval.\"]")
                        .replace("\"due\":0,\"highestLatenessSeconds\":0", "\"due\":3,\"highestLatenessSeconds\":70")
                        .replace(
                                "\"queuedMessages\":0,\"oldestQueuedSeconds\":0",
                                "\"queuedMessages\":2,\"oldestQueuedSeconds\":600"));
        var troubled = odd("status");
        assertThat(troubled.status()).isEqualTo(1);
        assertThat(troubled.out())
                .contains(
                        "3 due, the latest 70 s late",
                        "2 messages queued, the oldest for 600 s",
                        "! 1 check is awaiting approval")
                .doesNotContain("No problems");
    }

    @Test
    void aCheckThatWaitsIsNotWaitedFor() {
        answer(
                "POST /api/rules/late/checks",
                "{\"state\":\"RUNNING\",\"waitingFor\":\"SOURCE_OPEN\",\"reason\":\"The source ferry is closed.\",\"retryAt\":\"2026-05-05T02:30:00Z\"}");
        var ran = odd("check", "late", "--request-key", "k1");
        assertThat(ran.status()).isEqualTo(1);
        assertThat(ran.out()).startsWith("late waiting: The source ferry is closed. Next try at ");
        assertThat(asked).hasSize(1);
    }

    @Test
    void aCheckThatRunsOnIsAskedForAgainUnderTheSameKey() {
        answer("POST /api/rules/late/checks", "{\"state\":\"RUNNING\",\"waitingFor\":null}");
        Thread.ofVirtual().start(() -> {
            while (true) {
                synchronized (asked) {
                    if (asked.size() > 2) break;
                }
                Thread.onSpinWait();
            }
            answer("POST /api/rules/late/checks", "{\"state\":\"FAILED\",\"reason\":\"The source does not answer.\"}");
        });
        var ran = odd("check", "late");
        assertThat(ran.out()).contains("late failed: The source does not answer.");
        assertThat(ran.status()).isEqualTo(1);
    }

    @Test
    void calendarsTeamsSourcesAndTheFeed() throws IOException {
        answer(
                "GET /api/calendars",
                "[{\"name\":\"norway\",\"title\":\"Norway\",\"holidays\":[{},{}],\"knownUntil\":\"2027-12-26\",\"rules\":[\"safety-gear\"]},"
                        + "{\"name\":\"bare\",\"title\":\"Bare\",\"holidays\":[],\"knownUntil\":null,\"rules\":[]}]");
        assertThat(odd("calendars", "--csv").out().lines())
                .containsExactly(
                        "Calendar,Title,Holidays,Known until,Rules",
                        "norway,Norway,2,2027-12-26,safety-gear",
                        "bare,Bare,0,–,");
        var file = Files.writeString(folder.resolve("holidays.ics"), "BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n");
        answer(
                "POST /api/calendars/norway/holidays.ics?reason=holidays%20from%20an%20iCalendar%20file",
                "{\"changed\":true,\"revision\":4}");
        assertThat(odd("import-calendar", "norway", file.toString()).out())
                .contains("Saved calendar norway as revision 4.");
        assertThat(asked.getLast()).contains("BEGIN:VCALENDAR");
        answer("PUT /api/teams/Traffic%20reporting", "{\"name\":\"Traffic reporting\"}");
        assertThat(odd("save-team", "Traffic reporting", "a@b.example", "c@d.example")
                        .out())
                .contains("Traffic reporting gets failure notices at a@b.example, c@d.example.");
        answer("PUT /api/teams/Traffic%20reporting/logo", "");
        answer("DELETE /api/teams/Traffic%20reporting/logo", "");
        var logo = Files.write(folder.resolve("logo"), new byte[] {(byte) 0xff, (byte) 0xd8, 1});
        odd("save-team", "Traffic reporting", "a@b.example", "--signature", "Desk\\nHolm", "--logo", logo.toString());
        assertThat(asked.get(asked.size() - 2)).contains("\"signature\":\"Desk\\nHolm\"");
        assertThat(asked.getLast()).contains("PUT /api/teams/Traffic%20reporting/logo");
        odd("save-team", "Traffic reporting", "a@b.example", "--no-logo");
        assertThat(asked.getLast()).contains("DELETE /api/teams/Traffic%20reporting/logo");
        int before = asked.size();
        assertThat(odd("save-team", "T", "a@b.example", "--logo", "none.png").err())
                .contains("No such file: none.png.");
        assertThat(odd("save-team", "T", "a@b.example", "--logo", logo.toString(), "--no-logo")
                        .status())
                .isEqualTo(2);
        assertThat(asked).as("nothing is half saved").hasSize(before);
        answer("POST /api/feed", "{\"address\":\"http://127.0.0.1/feeds/x/schedules.ics\"}");
        answer("DELETE /api/feed", "");
        assertThat(odd("feed").out().strip()).isEqualTo("http://127.0.0.1/feeds/x/schedules.ics");
        assertThat(odd("feed", "--revoke").out()).contains("is revoked");
        answer(
                "GET /api/sources",
                "[{\"name\":\"ferry\",\"jdbcUrl\":\"jdbc:postgresql:ferry\",\"username\":\"r\",\"maxRows\":10,\"timeLimitSeconds\":60,\"maxConnections\":4,\"closed\":\"22:00-04:30 UTC\"}]");
        assertThat(odd("sources").out()).contains("22:00-04:30 UTC");
    }

    @Test
    void sourceIsSavedWithWhatItsRoleMayDo() {
        answer(
                "PUT /api/sources/ferry",
                "{\"source\":{\"name\":\"ferry\"},\"test\":{\"reached\":true,\"detail\":\"The source answers.\","
                        + "\"warnings\":[\"The role is a superuser. Use a role that may only read.\"]}}");
        var saved = odd("save-source", "ferry", "--jdbc-url", "jdbc:postgresql:ferry", "--user", "r");
        assertThat(saved.out())
                .contains("Saved source ferry. The source answers.", "Warning: The role is a superuser.");
        assertThat(saved.status()).isZero();
    }

    @Test
    void queriesRunByHandAreListedAndStopped() {
        answer("GET /api/query-runs", "[]");
        assertThat(odd("query-runs").out()).contains("No queries are running.");
        answer(
                "GET /api/query-runs",
                "[{\"id\":\"0f8f\",\"login\":\"ines\",\"source\":\"ferry\",\"query\":\"sailings\",\"since\":\"2026-11-28T04:40:00Z\",\"rows\":12}]");
        assertThat(odd("query-runs", "--csv").out()).contains("0f8f,ines,ferry,sailings");
        answer("DELETE /api/query-runs/0f8f", "");
        assertThat(odd("query-runs", "--stop", "0f8f").out()).contains("Stopped.");
    }

    @Test
    void anEventSaysWhatItBeginsAndCarriesItsValues() {
        answer("GET /api/events", "[]");
        assertThat(odd("trigger").out()).contains("No rule uses external events.");
        answer("GET /api/events", "[\"loaded\"]");
        assertThat(odd("trigger").out().strip()).isEqualTo("loaded");
        answer("POST /api/events/loaded", "{\"rules\":[]}");
        assertThat(odd("trigger", "loaded").out()).contains("No active rule uses the event loaded just now.");
        answer("POST /api/events/loaded", "{\"rules\":[\"late\",\"fuel\"]}");
        assertThat(odd("trigger", "loaded", "--value", "season=summer", "--value", "least=3")
                        .out())
                .contains("loaded starts a check of late, fuel.");
        assertThat(asked.getLast()).endsWith("{\"values\":{\"season\":\"summer\",\"least\":\"3\"}}");
    }

    @Test
    void aThresholdsValuesAndWhoChangedThem() {
        answer(
                "GET /api/thresholds/poor_load",
                "{\"values\":[{\"key\":[],\"from\":null,\"number\":112,\"when\":\"NOW\"},{\"key\":[\"Holm – Vik\"],\"from\":\"2027-06-01\",\"number\":95,\"when\":\"PLANNED\"}],"
                        + "\"history\":[{\"key\":[],\"from\":null,\"number\":null,\"setBy\":\"Ines Holm\",\"setAt\":\"2026-11-24T04:40:00Z\",\"reason\":\"a slip\"}]}");
        assertThat(odd("thresholds", "poor_load", "--csv").out())
                .contains("default,always,112,now", "Holm – Vik,2027-06-01,95,planned");
        assertThat(odd("thresholds", "poor_load", "--changes", "--csv").out())
                .contains("Ines Holm,default,always,removed,a slip");
        answer("POST /api/thresholds/poor_load/values", "{}");
        assertThat(odd(
                                "set-threshold",
                                "poor_load",
                                "95",
                                "--for",
                                "Holm – Vik",
                                "--reason",
                                "agreed",
                                "--treat-as-known")
                        .out())
                .contains("poor_load is 95 for Holm – Vik.");
        assertThat(asked.getLast()).contains("\"treatAsKnown\":true");
        assertThat(odd("set-threshold", "poor_load", "95").err()).contains("Give a reason with --reason");
        assertThat(odd("set-threshold", "poor_load", "--reason", "x").err())
                .contains("Give either a value or --remove");
    }

    @Test
    void aFileIsThereWholeOrNotAtAll() throws IOException {
        Path out = Files.writeString(folder.resolve("late.csv"), "what was there");
        answer("GET /api/rules/late/extract.csv", "Sailing\r\nSK-1\r\n");
        statuses.put("GET /api/rules/late/extract.csv", 409);
        answer("GET /api/rules/late/extract.csv", "{\"detail\":\"The source does not answer.\"}");
        var refused = odd("extract", "late", "--out", out.toString());
        assertThat(refused.status()).isEqualTo(1);
        assertThat(refused.err()).contains("The source does not answer.");
        assertThat(out).hasContent("what was there");
        statuses.clear();
        answer("GET /api/rules/late/extract.csv", "Sailing\r\nSK-1\r\n");
        assertThat(odd("extract", "late", "--out", out.toString()).status()).isZero();
        assertThat(Files.readString(out)).isEqualTo("Sailing\r\nSK-1\r\n");
        try (var left = Files.list(folder)) {
            assertThat(left.map(Path::toString)).noneMatch(name -> name.endsWith(".part"));
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"rules", "checks late", "findings late", "outbox", "status", "calendars", "trigger", "sources"})
    void whatTheServiceRefusesIsSaidAndIsNoSuccess(String command) {
        var ran = odd(command.split(" "));
        assertThat(ran.status()).isEqualTo(1);
        assertThat(ran.err()).contains("no answer to GET");
        assertThat(ran.out()).isEmpty();
    }

    @Test
    void withoutAServiceEveryCommandSaysSoWithAStatusOfItsOwn() {
        server.stop(0);
        var ran = odd("rules");
        assertThat(ran.status()).isEqualTo(ExitStatus.NOT_REACHED);
        assertThat(ran.err()).contains("Cannot reach the service at http://127.0.0.1:");
    }

    @Test
    void allFindingsThatMatchAreHandledAfterALook() {
        String filter = "?severity=CRITICAL&handling=BY_NOBODY&rule=late";
        answer("GET /api/findings" + filter, "{\"total\":3,\"next\":null,\"byRule\":{\"late\":3},\"findings\":[]}");
        answer("POST /api/findings/handling", "{\"handled\":2,\"cleared\":1,\"unchanged\":0,\"missing\":0}");
        String[] take = {"handle", "take", "--severity", "critical", "--handling", "none", "--rule", "late"};
        assertThat(odd(take).out())
                .contains("late", "3 findings match. Nothing was changed. Add --apply to take them.");
        assertThat(asked).noneMatch(each -> each.startsWith("POST /api/findings"));
        var applied = new ArrayList<>(List.of(take));
        applied.addAll(List.of("--note", "Calling", "--apply"));
        assertThat(odd(applied.toArray(String[]::new)).out()).contains("Done for 2 findings. Already cleared: 1.");
        assertThat(asked.getLast())
                .contains("\"expected\":3", "\"handling\":\"BY_NOBODY\"", "\"kind\":\"TAKE\"", "\"note\":\"Calling\"");
        assertThat(odd("all-findings", "--handling", "nobody").err())
                .contains("\"nobody\" is not one of none, taken, snoozed, accepted.");
        assertThat(odd("all-findings", "--state", "out-of-sight").status()).isEqualTo(2);
        answer("GET /api/findings?state=AGED_OUT", "{\"total\":0,\"next\":null,\"byRule\":{},\"findings\":[]}");
        assertThat(odd("handle", "note", "--state", "aged-out").out()).contains("No findings match.");
        assertThat(odd("handle", "note", "--withdraw").err()).contains("A note cannot be withdrawn.");
    }

    @Test
    void whatIsForAProgramIsReadToItsEndPageByPage() {
        String one =
                "{\"id\":%d,\"rule\":\"late\",\"identity\":\"SK-%d\",\"state\":\"OPEN\",\"severity\":\"WARNING\",\"openedAt\":\"2026-11-24T04:40:00Z\",\"handling\":[]}";
        answer("GET /api/findings", "{\"total\":2,\"next\":\"1-5-1\",\"findings\":[" + one.formatted(1, 1) + "]}");
        answer(
                "GET /api/findings?after=1-5-1",
                "{\"total\":2,\"next\":null,\"findings\":[" + one.formatted(2, 2) + "]}");
        assertThat(odd("all-findings", "--csv").out()).contains("SK-1", "SK-2");
        assertThat(odd("all-findings", "--json").out()).contains("SK-1", "SK-2").contains("\"next\" : null");
        var table = odd("all-findings");
        assertThat(table.out()).contains("SK-1").doesNotContain("SK-2");
        assertThat(table.err()).contains("Only the first 1 of 2 findings");
    }
}
