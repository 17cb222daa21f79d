package dev.oddsentry.service.visibility;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** A stranger reads all that the API answers, and looks for the name, the numbers and the counts of what is hidden. */
class HiddenThingsTest extends HiddenEstate {
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

    @Test
    void theFeedOfTimesLeavesItOut() {
        assertThat(feed("stranger")).contains("BEGIN:VCALENDAR").doesNotContain(mark);
        assertThat(feed("guest")).contains(mark);
    }

    private String feed(String who) {
        String address = people.get(who).post("/api/feed", "").path("address").asString();
        return HttpApi.stranger(service.baseUrl())
                .send("GET", address.substring(address.indexOf("/feeds/")), null, Map.of())
                .text();
    }
}
