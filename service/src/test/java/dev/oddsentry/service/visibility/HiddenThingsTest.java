package dev.oddsentry.service.visibility;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import java.util.function.Function;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** A team hides one of everything; a stranger reads all that the API answers, and looks for its name, its numbers and its counts. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class HiddenThingsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi operator = service.api();
    private final LateSailings sailings = new LateSailings(service);
    /** In every name of what is hidden. */
    private final String mark = sailings.name;

    private final String wordMark = mark.replace('-', '_');
    private final String suffix = UUID.randomUUID().toString().substring(0, 6);
    private final String vault = "Vault " + suffix;
    private final String shop = "Shop " + suffix;
    private final String guests = "Guests " + suffix;
    private final String open = "open-" + suffix;
    private final Map<String, HttpApi> people = new HashMap<>();
    private final Map<String, String> ids = new HashMap<>();
    private Counts before;

    private record Counts(int activeRules, int holds, long findings, int others) {}

    @BeforeAll
    void peopleAndWhatIsHidden() {
        for (String team : List.of(vault, shop, guests))
            operator.put("/api/teams/" + encoded(team), Map.of("addresses", List.of("deck@skerryline.example")));
        user("keeper", "LEAD", vault);
        user("guest", "ANALYST", guests);
        user("stranger", "LEAD", shop);
        user("reader", "READER", shop);
        user("auditor", "AUDITOR", shop);
        people.put(
                "mailed",
                HttpApi.newUser(
                        service,
                        "mailed-" + suffix,
                        "READER",
                        List.of(shop),
                        sailings.recipient.toUpperCase(Locale.ROOT)));
        people.put("operator", operator);
        before = counts();
        shareWhatIsOpen();
        hideOneOfEverything();
    }

    private void user(String who, String role, String team) {
        String login = who + "-" + suffix;
        people.put(who, HttpApi.newUser(service, login, role, List.of(team), login + "@skerryline.example"));
    }

    /** What everybody sees, and what is hidden uses: it must not say by what. */
    private void shareWhatIsOpen() {
        sailings.late("SK-1", 60).late("SK-2", 20);
        operator.push("kind: query\nname: " + open + "\nsource: ferry\n"
                + "sql: select sailing, delay_min, reason from \"" + mark + "\" where :day >= date '2000-01-01'\n"
                + "parameters: { day: { type: date, default: today } }\n");
        operator.push("kind: threshold\nname: limit_" + suffix + "\nunit: min\n");
        operator.post(
                "/api/thresholds/limit_" + suffix + "/values",
                Map.of("values", List.of(Map.of("key", List.of(), "number", 15)), "reason", "a test"));
        operator.push("kind: calendar\nname: " + open + "\nweek: [monday]\n");
    }

    private void hideOneOfEverything() {
        String hidden = "\nowner: " + vault + "\nvisible_to: [" + guests + "]\n";
        var source = operator.get("/api/sources").path(0);
        operator.put(
                "/api/sources/source-" + mark,
                Map.of(
                        "jdbcUrl",
                        source.path("jdbcUrl").asString(),
                        "username",
                        source.path("username").asString(),
                        "password",
                        "reader",
                        "teams",
                        List.of(vault)));
        operator.push("kind: query\nname: query-" + mark + "\nsource: source-" + mark
                + "\nsql: select sailing, delay_min, reason from \"" + mark + "\"" + hidden);
        operator.push("kind: threshold\nname: threshold_" + wordMark + "\nunit: min" + hidden);
        operator.push("kind: calendar\nname: calendar-" + mark + "\nweek: [monday]" + hidden);
        operator.push("kind: layout\nname: layout-" + mark + "\nrows_as: list" + hidden);
        operator.push(
                "kind: recipient-list\nname: list-" + mark + "\nrecipients: [" + sailings.recipient + "]" + hidden);
        for (String rule : List.of("rule-" + mark, "broken-" + mark)) {
            operator.push("""
                    kind: rule
                    name: %s
                    title: Of %s
                    owner: %s
                    visible_to: [%s]
                    query: %s
                    exceptions: delay_min > threshold('limit_%s') and reason is null
                    memory: { key: [sailing], report: [new] }
                    schedule: { start: 2026-01-05T06:00, recur: FREQ=DAILY, calendar: %s, events: [event-%s] }
                    delivery: { to: [%s] }
                    """.formatted(rule, mark, vault, guests, open, suffix, open, mark, sailings.recipient));
        }
        String rule = "/api/rules/rule-" + mark;
        operator.post(rule + "/activate", "");
        operator.post("/api/holds", Map.of("rule", "rule-" + mark, "reason", "of " + mark));
        operator.check("rule-" + mark);
        operator.push("kind: round-up\nname: round-up-" + mark + "\nto: [" + sailings.recipient + "]\nrules: [rule-"
                + mark + "]\nschedule: { start: 2026-01-05T06:00, recur: FREQ=WEEKLY }" + hidden);
        ids.put(
                "/checks/",
                operator.get(rule + "/checks").path("checks").path(0).path("id").asString());
        ids.put(
                "/outbox/",
                operator.get("/api/outbox?rule=rule-" + mark)
                        .path("messages")
                        .path(0)
                        .path("id")
                        .asString());
        ids.put("/extracts/", ids.get("/outbox/"));
        ids.put(
                "/long-work/",
                operator.post(rule + "/back-tests", Map.of("days", 1))
                        .path("id")
                        .asString());
        ids.put(
                "/holds/",
                operator.get("/api/holds")
                        .valueStream()
                        .filter(each -> each.path("rule").asString().equals("rule-" + mark))
                        .findFirst()
                        .orElseThrow()
                        .path("id")
                        .asString());
        breakTheOther();
        retireOne(hidden);
    }

    /** Its checks fail, which is an incident with a message of its own. */
    private void breakTheOther() {
        String broken = "/api/rules/broken-" + mark;
        operator.post(broken + "/activate", "");
        sailings.change("alter table sailing_table rename column delay_min to was_delay_min");
        operator.send("POST", broken + "/checks?again=true", "", Map.of());
        sailings.change("alter table sailing_table rename column was_delay_min to delay_min");
    }

    private void retireOne(String hidden) {
        operator.push("kind: calendar\nname: retired-" + mark + "\nweek: [friday]" + hidden);
        operator.post("/api/definitions/calendar/retired-" + mark + "/retire", Map.of("reason", "of " + mark));
    }

    private Counts counts() {
        var stranger = people.get("stranger");
        var status = stranger.get("/api/status");
        Instant today = Instant.now().truncatedTo(ChronoUnit.DAYS);
        var day = stranger.get("/api/day?from=" + today + "&until=" + today.plus(1, ChronoUnit.DAYS));
        return new Counts(
                status.path("activeRules").asInt(),
                status.path("holds").asInt(),
                stranger.get("/api/findings").path("total").asLong(),
                day.path("others").asInt());
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    /** An operation of the API, as its description has it. */
    private record Operation(String id, String method, String path, String bodyType) {}

    private List<Operation> operations() {
        var all = new ArrayList<Operation>();
        operator.get("/api/openapi.json")
                .path("paths")
                .forEachEntry((path, methods) -> methods.forEachEntry((method, operation) -> {
                    var content = operation.path("requestBody").path("content");
                    all.add(new Operation(
                            operation.path("operationId").asString(),
                            method.toUpperCase(Locale.ROOT),
                            path,
                            content.isMissingNode()
                                    ? ""
                                    : content.propertyNames().iterator().next()));
                }));
        // What is one's own is not of a team, the stream of changes has no end, and a calendar of holidays may be new.
        all.removeIf(each -> List.of("streamChanges", "addHolidays").contains(each.id())
                || each.path().matches("/api/(session|token|feed).*"));
        return all;
    }

    /** The name of the hidden thing that the path is about. */
    private String nameFor(String path, String kind) {
        if (path.contains("/sources/")) return "source-" + mark;
        if (path.contains("/queries/")) return "query-" + mark;
        if (path.contains("/thresholds/")) return "threshold_" + wordMark;
        if (path.contains("/calendars/")) return "calendar-" + mark;
        if (path.contains("/round-ups/")) return "round-up-" + mark;
        if (path.contains("/definitions/"))
            return kind.equals("threshold") ? "threshold_" + wordMark : kind + "-" + mark;
        return "rule-" + mark;
    }

    private String path(Operation operation, String kind, Function<String, String> name) {
        String path = operation.path();
        String id = ids.entrySet().stream()
                .filter(each -> path.contains(each.getKey()))
                .map(Map.Entry::getValue)
                .findFirst()
                .orElse("none");
        return path.replace("{kind}", kind)
                .replace("{name}", name.apply(nameFor(path, kind)))
                .replace("{id}", name.apply(id))
                .replace("{revision}", "1")
                .replaceAll("\\{[a-z]+}", "1");
    }

    private String body(Operation operation) {
        return switch (operation.bodyType()) {
            case "" -> null;
            case "application/json" -> "{}";
            default -> "kind: none";
        };
    }

    @Test
    void whatIsHiddenAnswersLikeWhatIsNotThere() {
        var wrong = new ArrayList<String>();
        for (var operation : operations()) {
            boolean ofOne = operation.path().contains("{name}")
                    || ids.keySet().stream().anyMatch(each -> operation.path().contains(each));
            if (!ofOne
                    || operation.path().startsWith("/api/teams")
                    || operation.path().startsWith("/api/filters")) continue;
            var kinds = operation.path().contains("{kind}")
                    ? List.of("rule", "query", "threshold", "calendar", "layout", "round-up")
                    : List.of("");
            for (String kind : kinds) compare(operation, kind, wrong);
        }
        assertThat(wrong).isEmpty();
    }

    private void compare(Operation operation, String kind, List<String> wrong) {
        String there = path(operation, kind, name -> name);
        String nowhere = path(operation, kind, HiddenThingsTest::other);
        var answer = send(operation, there);
        var expected = send(operation, nowhere);
        boolean same =
                answer.status() == expected.status() && plain(answer, there).equals(plain(expected, nowhere));
        boolean refused = answer.status() >= 400;
        if (!same || !refused)
            wrong.add(operation.id() + " " + there + ": " + answer.status() + " " + answer.text() + "\n   but "
                    + expected.status() + " " + expected.text());
    }

    /** Something of the same shape that is not there. */
    private static String other(String name) {
        if (name.matches("\\d+")) return "9999999";
        if (name.matches("[0-9a-f-]{36}")) return UUID.randomUUID().toString();
        return name.replaceFirst("late[-_].*", "nowhere");
    }

    private static String plain(HttpApi.Answer answer, String path) {
        String name =
                path.replaceFirst("^/api/(definitions/[a-z-]+|[a-z-]+)/", "").replaceFirst("[/.].*", "");
        return answer.text()
                .replace(name, "NAME")
                .replaceAll(" Did you mean[^?]*\\?", "")
                .replaceAll("[0-9a-f]{8}-[0-9a-f-]{27}", "ID");
    }

    private HttpApi.Answer send(Operation operation, String path) {
        Map<String, String> headers =
                operation.bodyType().isEmpty() ? Map.of() : Map.of("Content-Type", operation.bodyType());
        return people.get("stranger").send(operation.method(), path, body(operation), headers);
    }

    @Test
    void noListAndNoSearchTellsOfIt() {
        Instant today = Instant.now().truncatedTo(ChronoUnit.DAYS);
        var asked = new ArrayList<>(List.of(
                "/api/day?from=" + today + "&until=" + today.plus(1, ChronoUnit.DAYS),
                "/api/week?zone=Europe/Oslo&first=" + LocalDate.now(),
                "/api/findings?q=" + mark,
                "/api/findings?rule=rule-" + mark,
                "/api/findings?q=SK-1&rule=rule-" + mark,
                "/api/findings/over-time?zone=Europe/Oslo",
                "/api/findings/over-time?zone=Europe/Oslo&by=TEAM",
                "/api/outbox?q=" + suffix,
                "/api/outbox?rule=rule-" + mark,
                "/api/queries/" + open,
                "/api/recipients/" + sailings.recipient,
                "/api/statements",
                "/api/teams/" + encoded(vault) + "/definitions",
                "/api/thresholds/limit_" + suffix,
                "/api/definitions/query/" + open));
        for (var operation : operations())
            if (operation.method().equals("GET") && !operation.path().contains("{")) asked.add(operation.path());
        assertThat(asked).hasSizeGreaterThan(35);
        var wrong = new ArrayList<String>();
        for (String path : asked) {
            String text =
                    people.get("stranger").send("GET", path, null, Map.of()).text();
            // The table's name stands in the open query, and the address in the question.
            text = text.replace("\\\"" + mark + "\\\"", "").replace("\"" + mark + "\"", "");
            if (path.contains("/recipients/")) text = text.replace(sailings.recipient, "");
            if (text.contains(mark) || text.contains(wordMark)) wrong.add(path + ": " + text);
        }
        assertThat(wrong).isEmpty();
    }

    @Test
    void noCountTellsOfIt() {
        assertThat(counts()).isEqualTo(before);
        var effect = people.get("stranger")
                .post(
                        "/api/thresholds/limit_" + suffix + "/effect",
                        Map.of("values", List.of(Map.of("key", List.of(), "number", 90))));
        assertThat(effect).isEmpty();
        assertThat(people.get("keeper")
                        .post(
                                "/api/thresholds/limit_" + suffix + "/effect",
                                Map.of("values", List.of(Map.of("key", List.of(), "number", 90)))))
                .isNotEmpty();
        assertThat(users(people.get("stranger"))).isEmpty();
        assertThat(users(people.get("guest"))).hasSize(2);
    }

    private JsonNode users(HttpApi who) {
        return who.get("/api/queries/" + open).path("usedBy");
    }

    @ParameterizedTest
    @ValueSource(strings = {"keeper", "guest", "auditor", "operator", "mailed"})
    void whoMaySeesIt(String who) {
        var api = people.get(who);
        assertThat(api.get("/api/rules/rule-" + mark).path("rule").path("name").asString())
                .isEqualTo("rule-" + mark);
        assertThat(api.get("/api/rules").findValuesAsString("name")).contains("rule-" + mark);
        assertThat(api.get("/api/findings?rule=rule-" + mark).path("total").asInt())
                .isEqualTo(2);
        assertThat(api.send("GET", "/api/extracts/" + ids.get("/outbox/") + "/rows", null, Map.of())
                        .status())
                .isEqualTo(200);
    }

    @ParameterizedTest
    @ValueSource(strings = {"reader", "stranger"})
    void whoMayNotDoesNot(String who) {
        assertThat(people.get(who).get("/api/rules").findValuesAsString("name")).doesNotContain("rule-" + mark);
        assertThat(people.get(who)
                        .send("GET", "/api/rules/rule-" + mark, null, Map.of())
                        .status())
                .isEqualTo(404);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "query: query-MARK",
                "query: OPEN\nschedule: { start: 2026-01-05T06:00, recur: FREQ=DAILY, calendar: calendar-MARK }",
                "query: OPEN\nexceptions: delay_min > threshold('threshold_WORD')",
                "query: OPEN\nschedule: { after: [ { rule: rule-MARK } ] }",
                "query: OPEN\ndelivery: { layout: layout-MARK, to: [deck@skerryline.example] }",
                "query: OPEN\ndelivery: { to: [\"list: list-MARK\"] }"
            })
    void aRuleOfOnesOwnDoesNotReachIt(String fields) {
        String rule = "kind: rule\nname: own-" + suffix + "\nowner: " + shop + "\nmemory: { key: [sailing] }\n"
                + fields.replace("MARK", mark).replace("WORD", wordMark).replace("OPEN", open) + "\n";
        String unknown = rule.replaceAll("late[-_][0-9a-f]{8}", "nowhere");
        for (String operation : List.of("/api/preview", "/api/review", "/api/mail-preview")) {
            var refused = people.get("stranger").postYaml(operation, rule);
            assertThat(refused.text()).as(operation).contains("there is no ");
        }
        var stranger = people.get("stranger");
        String told = stranger.pushAnswer(rule)
                .body()
                .path("problems")
                .path(0)
                .path("message")
                .asString();
        assertThat(told).startsWith("there is no ");
        assertThat(told.replaceAll("late[-_][0-9a-f]{8}", "nowhere"))
                .isEqualTo(stranger.pushAnswer(unknown)
                        .body()
                        .path("problems")
                        .path(0)
                        .path("message")
                        .asString());
        assertThat(people.get("guest")
                        .postYaml("/api/review", rule.replace(shop, guests))
                        .text())
                .doesNotContain("there is no ");
    }

    @Test
    void aRuleThatEverybodySeesDoesNotShowTheTextOfItsHiddenQuery() {
        operator.push("kind: rule\nname: seen-" + suffix + "\nowner: " + vault + "\nquery: query-" + mark
                + "\nmemory: { key: [sailing] }\ndelivery: { to: [deck@skerryline.example] }\n");
        String page = "/api/rules/seen-" + suffix;
        assertThat(people.get("reader").get(page).path("text").path("sql").isNull())
                .isTrue();
        assertThat(people.get("guest").get(page).path("text").path("sql").asString())
                .contains("select");
        operator.post("/api/definitions/rule/seen-" + suffix + "/retire", Map.of("reason", "a test"));
    }

    @Test
    void aTrialUnderItsNameOrItsIdIsRefused() {
        String own = "kind: rule\nowner: " + shop + "\nquery: " + open + "\nmemory: { key: [sailing] }\n";
        String id = operator.get("/api/definitions/rule/rule-" + mark + ".json")
                .path("id")
                .asString();
        for (String named : List.of("name: rule-" + mark, "name: own-trial-" + suffix + "\nid: " + id))
            for (String operation : List.of("/api/preview", "/api/mail-preview", "/api/review")) {
                var answer = people.get("stranger").postYaml(operation, own + named + "\n");
                assertThat(answer.status()).as(operation + " " + answer.text()).isEqualTo(409);
                assertThat(answer.text()).contains("is taken");
            }
        var query = people.get("stranger")
                .postYaml(
                        "/api/query-effect",
                        "kind: query\nname: query-" + mark + "\nsource: ferry\nsql: select 1 as one\n");
        assertThat(query.text()).contains("is taken");
    }

    @Test
    void itsCalendarAndLayoutAreNotUsedInQuestions() {
        var stranger = people.get("stranger");
        String dates = "/api/dates?zone=UTC&start=2026-01-05T06:00&recur=FREQ%3DDAILY&calendar=calendar-" + mark;
        assertThat(stranger.send("GET", dates, null, Map.of()).status()).isEqualTo(404);
        assertThat(people.get("guest").send("GET", dates, null, Map.of()).status())
                .isEqualTo(200);
        var meant = Map.of("texts", List.of("today + 1 working day"), "zone", "UTC", "calendar", "calendar-" + mark);
        assertThat(stranger.postAnswer("/api/relative-dates", meant).status()).isEqualTo(404);
        assertThat(people.get("guest").postAnswer("/api/relative-dates", meant).status())
                .isEqualTo(200);
        var own = new LateSailings(service);
        operator.push(own.saved());
        String extract = "/api/rules/" + own.name + "/extract.csv?layout=layout-" + mark;
        assertThat(stranger.send("GET", extract, null, Map.of()).status()).isEqualTo(404);
        assertThat(people.get("guest").send("GET", extract, null, Map.of()).status())
                .isEqualTo(200);
    }

    @Test
    void itsSourceReadsNothingForOthers() {
        String query =
                "kind: query\nname: own-query-" + suffix + "\nsource: source-" + mark + "\nsql: select 1 as one\n";
        var stranger = people.get("stranger");
        assertThat(stranger.pushAnswer(query).text()).contains("there is no source \\\"source-" + mark);
        assertThat(stranger.postAnswer("/api/query-runs", Map.of("document", query))
                        .text())
                .contains("there is no source");
        assertThat(stranger.postYaml("/api/review", query).text()).contains("there is no source");
        assertThat(people.get("keeper")
                        .pushAnswer(query + "owner: " + vault + "\nvisible_to: [" + vault + "]\n")
                        .status())
                .isEqualTo(200);

        var guest = people.get("guest");
        String kept = operator.send("GET", "/api/definitions/query/query-" + mark, null, Map.of())
                .text();
        assertThat(guest.pushAnswer(kept.replaceFirst("name: .*", "name: copied-" + suffix))
                        .text())
                .as("another query with the same text")
                .contains("there is no source");
        assertThat(guest.pushAnswer(kept + "\ntitle: Better called\n").text())
                .as("nothing that is read changes")
                .doesNotContain("there is no source");
    }

    @Test
    void whatIsHiddenIsNeitherReplacedNorChanged() {
        var stranger = people.get("stranger");
        for (String kind : List.of("rule", "query", "calendar", "layout", "round-up", "recipient-list")) {
            String name = (kind.equals("recipient-list") ? "list" : kind) + "-" + mark;
            String document = operator.send("GET", "/api/definitions/" + kind + "/" + name, null, Map.of())
                    .text();
            String open = document.replaceFirst("visible_to: .*\n( *- .*\n)*", "")
                    .replaceFirst("owner: .*", "owner: " + shop);
            var refused = stranger.pushAnswer(open);
            assertThat(refused.status()).as(kind + refused.text()).isIn(409, 422);
            assertThat(operator.send("GET", "/api/definitions/" + kind + "/" + name, null, Map.of())
                            .text())
                    .isEqualTo(document);
        }
        var found = operator.get("/api/findings?rule=rule-" + mark).path("findings");
        var handled = stranger.post(
                "/api/findings/handling",
                Map.of("findings", List.of(found.path(0).path("id").asLong()), "kind", "TAKE"));
        assertThat(handled.path("handled").asInt()).isZero();
        assertThat(operator.get("/api/findings?rule=rule-" + mark)
                        .path("findings")
                        .path(0)
                        .path("handling"))
                .isEmpty();
        assertThat(stranger.postAnswer("/api/events/event-" + mark, Map.of()).status())
                .isEqualTo(404);
    }
}
