package dev.oddsentry.service.access;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Each operation of the API, as each role, for what one's own team owns, what another team owns, and from somebody in no team. What is expected stands in
 * docs/access.md.
 */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class WhoMayDoWhatTest {
    private static final List<String> ROLES = List.of("reader", "analyst", "lead", "operator", "auditor");
    private static final JsonMapper JSON = new JsonMapper();
    private static final String SUFFIX = UUID.randomUUID().toString().substring(0, 6);
    private static final String DECK = "Deck " + SUFFIX;
    private static final String ENGINE = "Engine " + SUFFIX;

    private final RunningService service = RunningService.get();
    private final HttpApi operator = service.api();
    private final HttpClient http = HttpClient.newHttpClient();
    private final Map<String, List<String>> expected = table();
    private final Map<String, String> tokens = new HashMap<>();
    private final Map<String, Things> things = new HashMap<>();

    /** What a team owns. */
    private record Things(
            String team,
            String rule,
            String roundUp,
            String threshold,
            String calendar,
            String check,
            String message,
            String hold) {
        String id(String path) {
            if (path.contains("/checks/")) return check;
            if (path.contains("/outbox/") || path.contains("/extracts/")) return message;
            return path.contains("/holds/") ? hold : UUID.randomUUID().toString();
        }

        String name(String path) {
            if (path.contains("/teams/")) return team;
            if (path.contains("/round-ups/")) return roundUp;
            if (path.contains("/thresholds/")) return threshold;
            if (path.contains("/calendars/")) return calendar;
            return path.contains("/rules/") || path.contains("/definitions/") ? rule : "none-" + SUFFIX;
        }
    }

    /** The tables of docs/access.md: role by role, what it may. */
    private static Map<String, List<String>> table() {
        try (var lines = Files.lines(Path.of("..", "docs", "access.md"))) {
            Map<String, List<String>> table = new TreeMap<>();
            lines.filter(line -> line.matches("\\| [a-zA-Z]+ \\| (yes|no|own).*"))
                    .forEach(line -> {
                        String[] cells = line.substring(1).split("\\|");
                        assertThat(cells).as(line).hasSize(ROLES.size() + 1);
                        var row = new ArrayList<String>();
                        for (int i = 1; i < cells.length; i++) row.add(cells[i].strip());
                        assertThat(row).as(line).isSubsetOf("yes", "no", "own");
                        assertThat(table.put(cells[0].strip(), row))
                                .as("twice: " + line)
                                .isNull();
                    });
            return table;
        } catch (IOException unreadable) {
            throw new IllegalStateException(unreadable);
        }
    }

    @BeforeAll
    void peopleAndWhatTheyOwn() {
        for (String team : List.of(DECK, ENGINE)) {
            operator.put(
                    "/api/teams/" + team.replace(" ", "%20"), Map.of("addresses", List.of("deck@skerryline.example")));
            things.put(team, owned(team));
        }
        for (String role : ROLES) {
            tokens.put(role, token(role, List.of(DECK)));
            tokens.put(role + " in no team", token(role, List.of()));
        }
        operator.put("/api/access-policy", Map.of("teamsDecide", true));
    }

    @AfterAll
    void asBefore() {
        operator.put("/api/access-policy", Map.of("teamsDecide", false));
    }

    private String token(String role, List<String> teams) {
        String login = role + "-" + (teams.isEmpty() ? "none-" : "deck-") + SUFFIX;
        operator.post(
                "/api/people",
                Map.of(
                        "login",
                        login,
                        "name",
                        login,
                        "email",
                        login + "@skerryline.example",
                        "password",
                        "long-enough-1",
                        "role",
                        role.toUpperCase(Locale.ROOT),
                        "teams",
                        teams));
        return HttpApi.stranger(service.baseUrl())
                .post("/api/tokens", Map.of("login", login, "password", "long-enough-1"))
                .path("token")
                .asString();
    }

    private Things owned(String team) {
        var sailings = new LateSailings(service);
        sailings.late("SK-1", 60);
        operator.push(sailings.saved().replaceFirst("owner: .*", "owner: " + team));
        operator.post("/api/rules/" + sailings.name + "/activate", "");
        operator.post("/api/holds", Map.of("rule", sailings.name, "reason", "a test"));
        operator.check(sailings.name);
        String roundUp = "round-up-" + sailings.name;
        operator.push("""
                kind: round-up
                name: %s
                owner: %s
                to: [%s]
                rules: [%s]
                schedule: { start: 2026-01-05T06:00, recur: FREQ=WEEKLY }
                """.formatted(roundUp, team, sailings.recipient, sailings.name));
        String shared = sailings.name.replace('-', '_');
        operator.push("kind: threshold\nname: " + shared + "\nowner: " + team + "\n");
        operator.push("kind: calendar\nname: " + sailings.name + "\nowner: " + team + "\n");
        var check = operator.get("/api/rules/" + sailings.name + "/checks");
        var hold = operator.get("/api/holds")
                .valueStream()
                .filter(each -> each.path("rule").asString().equals(sailings.name))
                .findFirst()
                .orElseThrow();
        return new Things(
                team,
                sailings.name,
                roundUp,
                shared,
                sailings.name,
                first(check).path("id").asString(),
                operator.get("/api/outbox?rule=" + sailings.name)
                        .path("messages")
                        .path(0)
                        .path("id")
                        .asString(),
                hold.path("id").asString());
    }

    private static JsonNode first(JsonNode list) {
        return list.isArray() ? list.path(0) : list.path("checks").path(0);
    }

    /** An operation as the OpenAPI document has it. */
    private record Operation(String id, String method, String path, String bodyType) {}

    private List<Operation> operations() {
        var all = new ArrayList<Operation>();
        operator.get("/api/openapi.json")
                .path("paths")
                .forEachEntry((path, methods) -> methods.forEachEntry((method, operation) -> {
                    var content = operation.path("requestBody").path("content");
                    String type = content.isMissingNode()
                            ? ""
                            : content.propertyNames().iterator().next();
                    all.add(new Operation(
                            operation.path("operationId").asString(), method.toUpperCase(Locale.ROOT), path, type));
                }));
        return all;
    }

    @Test
    void everyOperationHasARowAndARight() {
        var ids = operations().stream().map(Operation::id).toList();
        assertThat(expected.keySet()).containsExactlyInAnyOrderElementsOf(ids);
        assertThat(service.bean(OperationRights.class).operations()).containsExactlyInAnyOrderElementsOf(ids);
    }

    @Test
    void eachRoleMayDoWhatTheTableSays() throws Exception {
        var wrong = new ArrayList<String>();
        for (var operation : operations()) {
            for (int role = 0; role < ROLES.size(); role++) {
                String cell = expected.get(operation.id()).get(role);
                expect(wrong, operation, ROLES.get(role), DECK, !cell.equals("no"));
                expect(wrong, operation, ROLES.get(role), ENGINE, cell.equals("yes"));
                expect(wrong, operation, ROLES.get(role) + " in no team", DECK, cell.equals("yes"));
            }
        }
        assertThat(wrong).isEmpty();
    }

    @Test
    void untilTeamsDecideAnalystsDoWhatTheyDid() throws Exception {
        operator.put("/api/access-policy", Map.of("teamsDecide", false));
        try {
            var wrong = new ArrayList<String>();
            for (var operation : operations()) {
                var row = expected.get(operation.id());
                boolean before = !row.get(ROLES.indexOf("lead")).equals("no");
                expect(wrong, operation, "analyst in no team", ENGINE, before);
            }
            assertThat(wrong).isEmpty();
        } finally {
            operator.put("/api/access-policy", Map.of("teamsDecide", true));
        }
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
        query          | source: ferry§sql: select 1 as one
        threshold      | unit: min
        calendar       | week: [monday]
        layout         | rows_as: list
        recipient-list | recipients: [deck@skerryline.example]
        """)
    void whatSeveralRulesUseIsChangedByMembersOfItsOwner(String kind, String fields) {
        var analyst = new HttpApi(service.baseUrl(), tokens.get("analyst"));
        var stranger = new HttpApi(service.baseUrl(), tokens.get("analyst in no team"));
        String text = "kind: " + kind + "\nname: shared_" + SUFFIX + "\n" + fields.replace('§', '\n') + "\ntitle: %s\n";
        String owned = text + "owner: " + DECK + "\n";
        assertThat(stranger.pushAnswer(text.formatted("of all")).status()).isEqualTo(200);
        assertThat(analyst.pushAnswer(owned.formatted("of the deck")).status()).isEqualTo(200);
        for (String change : List.of(text, owned, text + "owner: " + ENGINE + "\n")) {
            var refused = stranger.pushAnswer(change.formatted("of a stranger"));
            assertThat(refused.status()).isEqualTo(403);
            assertThat(refused.text()).contains("This belongs to the team " + DECK);
        }
        assertThat(operator.get("/api/definitions/" + kind + "/shared_" + SUFFIX + ".json")
                        .path("title")
                        .asString())
                .isEqualTo("of the deck");
        assertThat(analyst.pushAnswer(text.formatted("of all again")).status()).isEqualTo(200);
        assertThat(stranger.pushAnswer(text.formatted("of a stranger")).status())
                .isEqualTo(200);
    }

    private void expect(List<String> wrong, Operation operation, String who, String team, boolean allowed)
            throws Exception {
        var answer = send(operation, who, things.get(team));
        boolean refused = answer.status() == 403 || answer.text().contains("This belongs to the team");
        if (refused == allowed)
            wrong.add(
                    operation.id() + ", " + who + ", owned by " + team + ": " + answer.status() + " " + answer.text());
        if (answer.status() >= 500) wrong.add(operation.id() + ", " + who + ": " + answer.text());
    }

    private Answer send(Operation operation, String who, Things about) throws Exception {
        String path = operation
                .path()
                .replace("{name}", about.name(operation.path()).replace(" ", "%20"))
                .replace("{id}", about.id(operation.path()))
                .replace("{kind}", "rule")
                .replace("{revision}", "1")
                .replace("{login}", "nobody-" + SUFFIX)
                .replaceAll("\\{[A-Za-z]+}", "1");
        String body = body(operation, about);
        var request = HttpRequest.newBuilder(URI.create(service.baseUrl() + path))
                .method(
                        operation.method(),
                        body.isEmpty()
                                ? HttpRequest.BodyPublishers.noBody()
                                : HttpRequest.BodyPublishers.ofString(body));
        if (!operation.bodyType().isEmpty()) request.header("Content-Type", operation.bodyType());
        request.header(
                "Authorization", "Bearer " + (operation.id().equals("revokeToken") ? other(who) : tokens.get(who)));
        var answer = http.send(request.build(), HttpResponse.BodyHandlers.ofInputStream());
        try (var in = answer.body()) {
            // The stream of changes has no end.
            boolean endless =
                    answer.headers().firstValue("Content-Type").orElse("").startsWith("text/event-stream");
            return new Answer(
                    answer.statusCode(), endless ? "" : new String(in.readAllBytes(), StandardCharsets.UTF_8));
        }
    }

    /** A token that may be revoked. */
    private String other(String who) {
        String login = who.replace(" in no team", "-none-") + (who.endsWith("team") ? "" : "-deck-") + SUFFIX;
        return HttpApi.stranger(service.baseUrl())
                .post("/api/tokens", Map.of("login", login, "password", "long-enough-1"))
                .path("token")
                .asString();
    }

    private String body(Operation operation, Things about) {
        return switch (operation.id()) {
            case "saveDefinition" ->
                operator.send("GET", "/api/definitions/rule/" + about.rule(), null, Map.of())
                        .text();
            case "changeRules" -> JSON.writeValueAsString(Map.of("action", "PAUSE", "rules", List.of(about.rule())));
            case "copyRule" -> JSON.writeValueAsString(Map.of("name", "copy-" + UUID.randomUUID()));
            case "holdMail" -> JSON.writeValueAsString(Map.of("rule", about.rule(), "reason", "a test"));
            default -> operation.bodyType().isEmpty() ? "" : "{}";
        };
    }

    private record Answer(int status, String text) {}
}
