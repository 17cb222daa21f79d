package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What each command asks of the API, what it prints of the answer, and its exit status. */
class CommandsTest {
    private final Map<String, String> answers = new ConcurrentHashMap<>();
    private final Map<String, Integer> statuses = new ConcurrentHashMap<>();
    private final List<String> asked = new ArrayList<>();
    private HttpServer server;

    @TempDir
    Path folder;

    private record Ran(int status, String out, String err) {}

    @BeforeEach
    void start() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", this::answer);
        server.start();
        System.setProperty("user.home", folder.toString());
        answer("POST /api/tokens", "{\"token\":\"t0\"}");
        answer("GET /api/session", "{\"name\":\"Ines Holm\"}");
        var before = System.in;
        System.setIn(new ByteArrayInputStream("a password\n".getBytes(StandardCharsets.UTF_8)));
        try {
            assertThat(odd("login", "--user", "ines", "--password-stdin").status)
                    .isZero();
        } finally {
            System.setIn(before);
        }
        asked.clear();
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    private void answer(HttpExchange exchange) throws IOException {
        String body = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
        String call = exchange.getRequestMethod() + " " + exchange.getRequestURI();
        synchronized (asked) {
            asked.add(call + (body.isEmpty() ? "" : " " + body));
        }
        byte[] answer = answers.getOrDefault(call, "{\"detail\":\"no answer to " + call + "\"}")
                .getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().add("Content-Type", "application/json");
        exchange.sendResponseHeaders(answers.containsKey(call) ? statuses.getOrDefault(call, 200) : 404, answer.length);
        exchange.getResponseBody().write(answer);
        exchange.close();
    }

    private void refuse(String call, int status, String json) {
        answer(call, json);
        statuses.put(call, status);
    }

    private void answer(String call, String json) {
        answers.put(call, json);
    }

    private Ran odd(String... arguments) {
        var out = new StringWriter();
        var err = new StringWriter();
        var all = new ArrayList<>(List.of(arguments));
        all.addAll(List.of("--url", "http://127.0.0.1:" + server.getAddress().getPort()));
        int status = Odd.run(new PrintWriter(out, true), new PrintWriter(err, true), all.toArray(String[]::new));
        return new Ran(status, out.toString(), err.toString());
    }

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
        answer("POST /api/rules/late/marks", "[]");
        var ran = odd(command.split(" "));
        assertThat(ran.out.strip()).isEqualTo(said);
        assertThat(asked).containsExactly("POST /api/rules/late/marks " + body);
        assertThat(ran.status).isZero();
    }

    @ParameterizedTest
    @CsvSource({
        "stop,    RUNNING,   STOPPED, 'late stopped: Stopped by Ines Holm.'",
        "release, KEPT_BACK, FIRED,   'late fired: 7 rows read, 2 exceptions, 2 reported.'",
        "discard, KEPT_BACK, STOPPED, 'late stopped: Stopped by Ines Holm.'",
    })
    void theOneCheckThatIsMeantIsMoved(String move, String from, String to, String said) {
        answer(
                "GET /api/rules/late/checks",
                "[{\"id\":\"c9\",\"state\":\"QUIET\"},{\"id\":\"c7\",\"state\":\"" + from + "\"}]");
        answer(
                "POST /api/checks/c7/" + move,
                "{\"state\":\"" + to
                        + "\",\"reason\":\"Stopped by Ines Holm.\",\"rowsRead\":7,\"exceptions\":2,\"unknownRows\":0,\"news\":2}");
        assertThat(odd(move, "late").out.strip()).isEqualTo(said);
        answer("GET /api/rules/late/checks", "[{\"id\":\"c9\",\"state\":\"QUIET\"}]");
        var none = odd(move, "late");
        assertThat(none.status).isEqualTo(1);
        assertThat(none.err)
                .contains("No check of late is " + from.toLowerCase(Locale.ROOT).replace('_', ' '));
    }

    @Test
    void statusSaysWhatNeedsAPersonAndFailsWhereSomethingDoes() {
        String well =
                "{\"node\":\"holm-1\",\"activeRules\":1,\"running\":0,\"due\":0,\"latestSeconds\":0,\"latestFinished\":null,"
                        + "\"outcomes\":{\"FIRED\":2,\"NOT_JUDGED\":1},\"waitingMessages\":0,\"oldestWaitingSeconds\":0,\"problems\":[]}";
        answer("GET /api/status", well);
        var ran = odd("status");
        assertThat(ran.status).isZero();
        assertThat(ran.out)
                .contains(
                        "Node holm-1, 1 active rule.",
                        "2 fired",
                        "1 not judged",
                        "0 messages waiting.",
                        "All is well.");
        answer(
                "GET /api/status",
                well.replace("\"problems\":[]", "\"problems\":[\"1 check is kept back and waits for a person.\"]")
                        .replace("\"due\":0,\"latestSeconds\":0", "\"due\":3,\"latestSeconds\":70")
                        .replace(
                                "\"waitingMessages\":0,\"oldestWaitingSeconds\":0",
                                "\"waitingMessages\":2,\"oldestWaitingSeconds\":600"));
        var troubled = odd("status");
        assertThat(troubled.status).isEqualTo(1);
        assertThat(troubled.out)
                .contains(
                        "3 due, the latest 70 s late",
                        "2 messages waiting, the oldest for 600 s",
                        "! 1 check is kept back")
                .doesNotContain("All is well");
    }

    @Test
    void aPersonalCopyIsNamedAndListed() {
        answer(
                "POST /api/rules/day/preview",
                "{\"rowsRead\":9,\"tookMillis\":3,\"exceptions\":1,\"bySeverity\":{\"WARNING\":1},\"wouldReport\":1,\"hearers\":[],\"columns\":[],\"rows\":[],"
                        + "\"copy\":\"Holm\",\"copies\":[{\"key\":\"Holm\",\"to\":[\"holm@skerryline.example\"],\"exceptions\":1,\"wouldReport\":1,\"failure\":null},"
                        + "{\"key\":\"Vik\",\"to\":[],\"exceptions\":0,\"wouldReport\":0,\"failure\":null},"
                        + "{\"key\":\"Ytre\",\"to\":[],\"exceptions\":0,\"wouldReport\":0,\"failure\":\"No address.\"}]}");
        assertThat(odd("preview", "day").out)
                .contains(
                        "3 personal copies:",
                        "Holm: 1 exception, would report 1 to holm@skerryline.example",
                        "Vik: 0 exceptions, would report 0 to the rule's own addresses",
                        "Ytre: would fail: No address.",
                        "As for Holm:");
        answer(
                "POST /api/rules/day/preview?copy=Gr%C3%A5vik%20%26%20Holm",
                "{\"hearers\":[],\"columns\":[],\"rows\":[]}");
        odd("preview", "day", "--copy", "Gråvik & Holm");
        assertThat(asked.getLast()).contains("copy=Gr%C3%A5vik%20%26%20Holm");

        answer("GET /api/rules/day/checks", "[]");
        assertThat(odd("checks", "day", "--copies").out).contains("day has no personal copies that were checked.");
        answer("GET /api/rules/day/checks", "[{\"id\":\"c1\",\"slot\":\"2026-05-05T04:10:00Z\"}]");
        answer(
                "GET /api/checks/c1/copies",
                "[{\"copy\":\"Holm\",\"state\":\"FIRED\",\"to\":[\"holm@skerryline.example\"],\"rowsRead\":9,\"exceptions\":1,\"news\":1,\"reason\":null},"
                        + "{\"copy\":\"Vik\",\"state\":\"FAILED\",\"to\":[],\"reason\":\"division by zero\"}]");
        assertThat(odd("checks", "day", "--copies", "--csv").out)
                .contains("For,Outcome,Rows,Exceptions,Reported,To,Reason", "Holm,fired,9,1,1,holm@skerryline.example,")
                .contains("Vik,failed,,,,the rule's own addresses,division by zero");
        answer(
                "POST /api/rules/day/checks",
                "{\"state\":\"PARTLY_FAILED\",\"rowsRead\":9,\"exceptions\":1,\"news\":1,\"reason\":\"1 of 2 personal copies failed (Vik: division by zero).\"}");
        var partly = odd("check", "day");
        assertThat(partly.status).isEqualTo(1);
        assertThat(partly.out)
                .contains(
                        "day partly failed: 9 rows read, 1 exception, 1 reported. 1 of 2 personal copies failed (Vik");
    }

    @Test
    void aDraftIsLaidBesideARuleShownSwitchedToAndThrownAway() throws IOException {
        String draft =
                "{\"version\":2,\"baseRevision\":6,\"revision\":7,\"author\":\"Ines Holm\",\"at\":\"2026-05-05T04:10:00Z\",\"effect\":\"RE_JUDGE\","
                        + "\"document\":{\"name\":\"late\",\"exceptions\":\"delay_min > 30\",\"memory\":{\"key\":[\"sailing\"],\"hold\":\"2 checks\"}}}";
        answer("PUT /api/rules/late/draft", draft);
        answer("GET /api/rules/late/draft", draft);
        answer(
                "GET /api/definitions/rule/late.json",
                "{\"name\":\"late\",\"exceptions\":\"delay_min > 15\",\"memory\":{\"key\":[\"sailing\"]}}");
        var file = Files.writeString(folder.resolve("late.rule.yaml"), "kind: rule\nname: late\n");
        var laid = odd("draft", "late", "--file", file.toString());
        assertThat(laid.status).isZero();
        assertThat(asked).anyMatch(call -> call.startsWith("PUT /api/rules/late/draft") && call.contains("name: late"));
        assertThat(laid.out)
                .contains(
                        "Draft of late by Ines Holm,",
                        "version 2, made from revision 6.",
                        "The rule was saved since, as revision 7",
                        "  - exceptions: delay_min > 15",
                        "  + exceptions: delay_min > 30",
                        "  + memory, hold: 2 checks",
                        "After a switch: The next check judges anew: what it finds is told")
                .doesNotContain("key");
        assertThat(odd("draft", "late").out).isEqualTo(laid.out);
        assertThat(odd("draft", "late", "--json").out).contains("\"version\"");

        answer(
                "POST /api/rules/late/draft/switch?remark=in%20winter&asKnown=true",
                "{\"revision\":8,\"effect\":\"RE_JUDGE\"}");
        assertThat(odd("draft", "late", "--switch", "--remark", "in winter", "--as-known").out)
                .contains("The draft of late is the rule now, as revision 8.", "taken as known");
        answer("DELETE /api/rules/late/draft", "");
        assertThat(odd("draft", "late", "--discard").out).contains("The draft of late is thrown away.");
        assertThat(odd("draft", "late", "--discard", "--switch").status)
                .as("one thing at a time")
                .isEqualTo(2);

        refuse(
                "PUT /api/rules/late/draft",
                422,
                "{\"detail\":\"There is one thing to put right.\",\"problems\":[{\"weight\":\"error\","
                        + "\"message\":\"unknown column \\\"dely\\\"\",\"field\":\"exceptions\",\"place\":{\"line\":2,\"column\":1,\"offset\":11,\"length\":4},\"suggestion\":null}]}");
        var refused = odd("draft", "late", "--file", file.toString());
        assertThat(refused.status).isEqualTo(1);
        assertThat(refused.err).contains("late.rule.yaml:2:1: unknown column");
    }

    @Test
    void whoIsAddedIsSaidAndMayBeSentWhatIsOpen() throws IOException {
        var file = Files.writeString(folder.resolve("late.rule.yaml"), "kind: rule\nname: late\n");
        answer(
                "PUT /api/definitions?remark=",
                "{\"kind\":\"rule\",\"name\":\"late\",\"changed\":true,\"revision\":3,\"effect\":\"NO_EFFECT\",\"added\":[\"siv@skerryline.example\"],\"warnings\":[]}");
        var saved = odd("push", file.toString());
        assertThat(saved.out).contains("Saved rule late as revision 3.");
        assertThat(saved.err).contains("siv@skerryline.example hears what is new from now on; odd send-open late siv@");
        answer("POST /api/rules/late/send-open", "{\"messages\":2}");
        assertThat(odd("send-open", "late", "siv@skerryline.example").out)
                .contains("What is open of late goes to siv@skerryline.example in 2 mails.");
        assertThat(asked.getLast()).contains("{\"to\":\"siv@skerryline.example\"}");
    }

    @Test
    void revisionsAreListedAndGoneBackTo() {
        answer(
                "GET /api/definitions/query/lately/revisions",
                "[{\"revision\":2,\"remark\":\"wider window\",\"author\":\"Ines Holm\",\"at\":\"2026-05-05T04:10:00Z\"},"
                        + "{\"revision\":1,\"remark\":\"\",\"author\":null,\"at\":\"2026-05-04T04:10:00Z\"}]");
        assertThat(odd("revisions", "lately", "--kind", "query", "--csv").out)
                .contains("Revision,Saved,By,Why", ",Ines Holm,wider window");
        answer(
                "POST /api/definitions/query/lately/revisions/1/restore?remark=too%20slow",
                "{\"revision\":3,\"changed\":true,\"effect\":\"RE_JUDGE\"}");
        var back = odd("revisions", "lately", "--kind", "query", "--back-to", "1", "--remark", "too slow");
        assertThat(back.err)
                .contains("Saved revision 1 of lately once more, as revision 3.", "The next check judges anew");
        answer("GET /api/definitions/rule/late/revisions", "[]");
        answer(
                "POST /api/definitions/rule/late/revisions/4/restore?remark=",
                "{\"revision\":4,\"changed\":false,\"effect\":\"NO_EFFECT\"}");
        assertThat(odd("revisions", "late", "--back-to", "4").err).contains("late says what revision 4 says already.");
    }

    @Test
    void aCheckThatWaitsIsNotWaitedFor() {
        answer(
                "POST /api/rules/late/checks",
                "{\"state\":\"RUNNING\",\"waitingFor\":\"SOURCE_OPEN\",\"reason\":\"The source ferry is closed.\",\"retryAt\":\"2026-05-05T02:30:00Z\"}");
        var ran = odd("check", "late", "--request-key", "k1");
        assertThat(ran.status).isEqualTo(1);
        assertThat(ran.out).startsWith("late waits: The source ferry is closed. Asks again ");
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
        assertThat(ran.out).contains("late failed: The source does not answer.");
        assertThat(ran.status).isEqualTo(1);
    }

    @Test
    void calendarsTeamsSourcesAndTheFeed() throws IOException {
        answer(
                "GET /api/calendars",
                "[{\"name\":\"norway\",\"title\":\"Norway\",\"holidays\":[{},{}],\"knownUntil\":\"2027-12-26\",\"rules\":[\"safety-gear\"]},"
                        + "{\"name\":\"bare\",\"title\":\"Bare\",\"holidays\":[],\"knownUntil\":null,\"rules\":[]}]");
        assertThat(odd("calendars", "--csv").out.lines())
                .containsExactly(
                        "Calendar,Title,Holidays,Known until,Rules",
                        "norway,Norway,2,2027-12-26,safety-gear",
                        "bare,Bare,0,–,");
        var file = Files.writeString(folder.resolve("holidays.ics"), "BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n");
        answer(
                "POST /api/calendars/norway/holidays.ics?remark=holidays%20from%20an%20iCalendar%20file",
                "{\"changed\":true,\"revision\":4}");
        assertThat(odd("import-calendar", "norway", file.toString()).out)
                .contains("Saved calendar norway as revision 4.");
        assertThat(asked.getLast()).contains("BEGIN:VCALENDAR");
        answer("PUT /api/teams/Traffic%20reporting", "{\"name\":\"Traffic reporting\"}");
        assertThat(odd("save-team", "Traffic reporting", "a@b.example", "c@d.example").out)
                .contains("Traffic reporting is reached at a@b.example, c@d.example.");
        answer("POST /api/feed", "{\"address\":\"http://127.0.0.1/feeds/x/schedules.ics\"}");
        answer("DELETE /api/feed", "");
        assertThat(odd("feed").out.strip()).isEqualTo("http://127.0.0.1/feeds/x/schedules.ics");
        assertThat(odd("feed", "--stop").out).contains("answers no more");
        answer(
                "GET /api/sources",
                "[{\"name\":\"ferry\",\"jdbcUrl\":\"jdbc:postgresql:ferry\",\"username\":\"r\",\"mostRows\":10,\"timeLimitSeconds\":60,\"mostConnections\":4,\"closed\":\"22:00-04:30 UTC\"}]");
        assertThat(odd("sources").out).contains("22:00-04:30 UTC");
    }

    @Test
    void anEventSaysWhatItBeginsAndCarriesItsValues() {
        answer("GET /api/events", "[]");
        assertThat(odd("event").out).contains("No rule listens to an event.");
        answer("GET /api/events", "[\"loaded\"]");
        assertThat(odd("event").out.strip()).isEqualTo("loaded");
        answer("POST /api/events/loaded", "{\"rules\":[]}");
        assertThat(odd("event", "loaded").out).contains("No active rule listens to loaded just now.");
        answer("POST /api/events/loaded", "{\"rules\":[\"late\",\"fuel\"]}");
        assertThat(odd("event", "loaded", "--value", "season=summer", "--value", "least=3").out)
                .contains("loaded begins a check of late, fuel.");
        assertThat(asked.getLast()).endsWith("{\"values\":{\"season\":\"summer\",\"least\":\"3\"}}");
    }

    @Test
    void aThresholdsValuesAndWhoChangedThem() {
        answer(
                "GET /api/thresholds/poor_load",
                "{\"values\":[{\"key\":[],\"from\":null,\"number\":112,\"when\":\"NOW\"},{\"key\":[\"Holm – Vik\"],\"from\":\"2027-06-01\",\"number\":95,\"when\":\"PLANNED\"}],"
                        + "\"history\":[{\"key\":[],\"from\":null,\"number\":null,\"setBy\":\"Ines Holm\",\"setAt\":\"2026-11-24T04:40:00Z\",\"remark\":\"a slip\"}]}");
        assertThat(odd("thresholds", "poor_load", "--csv").out)
                .contains("all others,always,112,now", "Holm – Vik,2027-06-01,95,planned");
        assertThat(odd("thresholds", "poor_load", "--changes", "--csv").out)
                .contains("Ines Holm,all others,always,taken back,a slip");
        answer("POST /api/thresholds/poor_load/values", "{}");
        assertThat(odd("set-threshold", "poor_load", "95", "--for", "Holm – Vik", "--remark", "agreed", "--as-known")
                        .out)
                .contains("poor_load is 95 for Holm – Vik.");
        assertThat(asked.getLast()).contains("\"asKnown\":true");
        assertThat(odd("set-threshold", "poor_load", "95").err).contains("Say why with --remark");
        assertThat(odd("set-threshold", "poor_load", "--remark", "x").err).contains("Give a value, or --take-back");
    }

    @Test
    void aFileIsThereWholeOrNotAtAll() throws IOException {
        Path out = Files.writeString(folder.resolve("late.csv"), "what was there");
        answer("GET /api/rules/late/extract.csv", "Sailing\r\nSK-1\r\n");
        statuses.put("GET /api/rules/late/extract.csv", 409);
        answer("GET /api/rules/late/extract.csv", "{\"detail\":\"The source does not answer.\"}");
        var refused = odd("extract", "late", "--out", out.toString());
        assertThat(refused.status).isEqualTo(1);
        assertThat(refused.err).contains("The source does not answer.");
        assertThat(out).hasContent("what was there");
        statuses.clear();
        answer("GET /api/rules/late/extract.csv", "Sailing\r\nSK-1\r\n");
        assertThat(odd("extract", "late", "--out", out.toString()).status).isZero();
        assertThat(Files.readString(out)).isEqualTo("Sailing\r\nSK-1\r\n");
        try (var left = Files.list(folder)) {
            assertThat(left.map(Path::toString)).noneMatch(name -> name.endsWith(".part"));
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"rules", "checks late", "findings late", "outbox", "status", "calendars", "event", "sources"})
    void whatTheServiceRefusesIsSaidAndIsNoSuccess(String command) {
        var ran = odd(command.split(" "));
        assertThat(ran.status).isEqualTo(1);
        assertThat(ran.err).contains("no answer to GET");
        assertThat(ran.out).isEmpty();
    }

    @Test
    void withoutAServiceEveryCommandSaysSoWithAStatusOfItsOwn() {
        server.stop(0);
        var ran = odd("rules");
        assertThat(ran.status).isEqualTo(Odd.NOT_REACHED);
        assertThat(ran.err).contains("No service answers at http://127.0.0.1:");
    }
}
