package dev.oddsentry.service.memory;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.RuleDefinition;
import java.math.BigDecimal;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

class FindingNamesTest {
    private static RuleDefinition rule(String columns) {
        return (RuleDefinition) Document.read("{kind: rule, name: late, owner: Traffic reporting, query: sailings,"
                        + " memory: {key: [sailing_id]}, delivery: {columns: [" + columns + "]}}")
                .definition();
    }

    private static Map<String, @Nullable Object> row() {
        var row = new LinkedHashMap<String, @Nullable Object>();
        row.put("sailing_id", new BigDecimal("12542"));
        row.put("status", null);
        row.put("sailing", "SK-184");
        row.put("delay_min", new BigDecimal("65"));
        row.put("route", "Varsund – Holm");
        row.put("vessel", "Terna");
        return row;
    }

    private static String name(String columns, Map<String, @Nullable Object> row) {
        return FindingNames.of(rule(columns), null, List.of(new BigDecimal("12542")), row);
    }

    @Test
    void theFirstTextsOfTheLayoutStandBesideTheKey() {
        assertThat(name("", row())).isEqualTo("12542 (SK-184, Varsund – Holm)");
        assertThat(name("vessel, delay_min, sailing, route", row())).isEqualTo("12542 (Terna, SK-184)");
    }

    @Test
    void withoutARowOrTextsTheKeyStandsAlone() {
        assertThat(name("sailing", Map.of())).isEqualTo("12542");
        assertThat(name("delay_min, status", row())).isEqualTo("12542");
        assertThat(FindingNames.of(rule(""), "Holm", Arrays.asList("SK-1", null), Map.of()))
                .startsWith("Holm: SK-1");
    }
}
