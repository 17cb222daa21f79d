package dev.oddsentry.service.queries;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.util.Map;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** The values of a column that the console offers while a condition is written. */
class ColumnValuesTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);

    private void saved(String sql) {
        api.push("kind: query\nname: " + sailings.name + "\nsource: ferry\nsql: '" + sql.replace("'", "''")
                + "'\nparameters: { least: { type: number, default: 0 } }\n"
                + "columns: { reason: { words: { W: Weather } } }\n");
    }

    private JsonNode values(String column, Map<String, String> values) {
        return api.post("/api/queries/" + sailings.name + "/column-values", Map.of("column", column, "values", values));
    }

    @Test
    void mostFrequentValuesComeFirstWithTheirWordsAndCounts() {
        sailings.change("insert into sailing_table values ('SK-1', 3, 'W'), ('SK-2', 5, 'W'), ('SK-3', 9, 'Ænes'),"
                + " ('SK-4', 9, null), ('SK-5', 9, '')");
        saved("select * from \"" + sailings.name + "\" where delay_min >= :least");
        var reasons = values("reason", Map.of());
        assertThat(reasons.path("rowsRead").asInt()).isEqualTo(5);
        assertThat(reasons.path("missing").asInt()).isEqualTo(1);
        assertThat(reasons.path("more").asBoolean()).isFalse();
        assertThat(reasons.path("values").findValuesAsString("text")).containsExactly("W", "", "Ænes");
        assertThat(reasons.path("values").get(0).path("label").asString()).isEqualTo("Weather");
        assertThat(reasons.path("values").get(0).path("rows").asInt()).isEqualTo(2);
        assertThat(values("delay_min", Map.of("least", "5")).path("values").findValuesAsString("text"))
                .containsExactly("9", "5");
    }

    @Test
    void columnOfManyValuesOffersSomeAndSaysThatThereAreOthers() {
        sailings.change(
                "insert into sailing_table select 'SK-' || n, n, repeat('x', n) from generate_series(1, 300) n");
        saved("select * from \"" + sailings.name + "\" where delay_min >= :least");
        var numbers = values("delay_min", Map.of());
        assertThat(numbers.path("values")).hasSize(200);
        assertThat(numbers.path("more").asBoolean()).isTrue();
        assertThat(values("reason", Map.of()).path("values").findValuesAsString("text"))
                .as("nobody chooses a text of that length")
                .allSatisfy(text -> assertThat(text.length()).isLessThanOrEqualTo(200));
    }

    @Test
    void unknownColumnsAndValuesOfAnotherTypeAreRefusedInWords() {
        saved("select * from \"" + sailings.name + "\" where delay_min >= :least");
        var unknown = api.postAnswer("/api/queries/" + sailings.name + "/column-values", Map.of("column", "delay"));
        assertThat(unknown.status()).isEqualTo(404);
        assertThat(unknown.text()).contains("returns no column delay; it returns sailing, delay_min, reason");
        var wrong = api.postAnswer(
                "/api/queries/" + sailings.name + "/column-values",
                Map.of("column", "reason", "values", Map.of("least", "many")));
        assertThat(wrong.status()).isEqualTo(422);
        assertThat(wrong.text()).contains("values.least");
    }
}
