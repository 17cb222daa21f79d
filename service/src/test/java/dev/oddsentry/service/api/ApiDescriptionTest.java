package dev.oddsentry.service.api;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.ResourceBundle;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The published OpenAPI document is one that a client can be generated from, and real answers validate against it. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class ApiDescriptionTest {
    private static final JsonMapper JSON = new JsonMapper();

    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final JsonNode document = api.get("/api/openapi.json");
    private final LateSailings sailings = new LateSailings(service);

    @BeforeAll
    void ruleThatWasChecked() {
        sailings.late("SK-1", 20).late("SK-2", 60).active();
        api.check(sailings.name);
    }

    private Stream<JsonNode> operations() {
        return document.path("paths").valueStream().flatMap(path -> path.valueStream());
    }

    @Test
    void operationsHaveNamesThatClientsCanUse() {
        var ids = new ArrayList<String>();
        operations().forEach(each -> ids.add(each.path("operationId").asString("")));
        assertThat(ids).doesNotHaveDuplicates().allMatch(id -> id.matches("[a-z][A-Za-z]+"));
        assertThat(operations())
                .allSatisfy(each -> assertThat(each.path("tags").size()).isEqualTo(1))
                .allSatisfy(each ->
                        assertThat(each.path("tags").path(0).asString("")).matches("[a-z]+"));
    }

    @Test
    void operationsHaveASentenceAndNoSentenceIsLeftOver() {
        var ids = new HashSet<String>();
        operations().forEach(each -> ids.add(each.path("operationId").asString("")));
        assertThat(ResourceBundle.getBundle("dev.oddsentry.service.api.operations")
                        .keySet())
                .isEqualTo(ids);
        assertThat(operations())
                .allSatisfy(
                        each -> assertThat(each.path("summary").asString("")).matches("[A-Z][a-z]+ .*\\."));
    }

    @Test
    void schemasHaveNamesOfTheirOwnAndEveryReferenceLeadsToOne() {
        var names = new HashSet<String>();
        document.path("components").path("schemas").propertyNames().forEach(names::add);
        assertThat(names).isNotEmpty().allMatch(name -> name.matches("[A-Z][A-Za-z0-9]*"));
        assertThat(document.findValuesAsString("$ref"))
                .isNotEmpty()
                .allMatch(reference -> names.contains(reference.replace("#/components/schemas/", "")));
    }

    @Test
    void fieldsThatMayBeNullSaySo() {
        var rule = schema("RuleSummary");
        assertThat(rule.path("properties").path("nextSlot").path("type").toString())
                .contains("null");
        assertThat(rule.path("required").toString()).contains("\"name\"", "\"nextSlot\"");
    }

    @Test
    void fieldsOfRequestsThatMayBeNullMayBeLeftOut() {
        assertThat(schema("BackTestBody").path("required").toString()).isEqualTo("[\"days\"]");
    }

    private JsonNode schema(String name) {
        return document.path("components").path("schemas").path(name);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "/api/rules",
                "/api/rules/{name}",
                "/api/rules/{name}/checks",
                "/api/rules/{name}/findings",
                "/api/rules/{name}/measurements",
                "/api/rules/{name}/dates",
                "/api/rules/{name}/long-work",
                "/api/queries",
                "/api/queries/{name}",
                "/api/sources",
                "/api/thresholds",
                "/api/calendars",
                "/api/teams",
                "/api/people",
                "/api/outbox",
                "/api/holds",
                "/api/round-ups",
                "/api/events",
                "/api/status",
                "/api/day?from=2026-11-28T23:00:00Z&until=2026-11-29T23:00:00Z",
                "/api/findings",
                "/api/recipients",
                "/api/blocked-addresses",
                "/api/languages",
                "/api/session",
                "/api/query-runs",
            })
    void answerIsAsThePublishedSchemaSays(String path) {
        var answer = api.get(path.replace("{name}", sailings.name));
        assertThat(problems(path.replaceAll("\\?.*", ""), "get", "200", answer)).isEmpty();
    }

    @Test
    void refusalIsAsThePublishedSchemaSays() {
        var refused = api.send("GET", "/api/rules/no-such-rule", null, Map.of());
        assertThat(problems("/api/rules/{name}", "get", "default", JSON.readTree(refused.text())))
                .isEmpty();
    }

    private List<String> problems(String path, String method, String status, JsonNode answer) {
        var content = document.path("paths")
                .path(path)
                .path(method)
                .path("responses")
                .path(status)
                .path("content");
        var schema = content.valueStream().findFirst().orElseThrow().path("schema");
        // References lead into the document, so it goes along.
        var whole = (ObjectNode) schema.deepCopy();
        whole.set("components", document.path("components"));
        return SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(whole.toString())
                .validate(JSON.<JsonNode>readTree(answer.toString()))
                .stream()
                .map(Object::toString)
                .toList();
    }
}
