package dev.oddsentry.service.api.conditions;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.condition.Condition;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.json.JsonMapper;

class ConditionTreesTest {
    private static final JsonMapper JSON = new JsonMapper();

    @ParameterizedTest
    @ValueSource(
            strings = {
                "delay_min > threshold('late_minutes') and reason is null and status not in ('cancelled', 'it''s')",
                "\"Kaptein Å\" like '10!%' escape '!' or sailing not matches '^SK-[0-9]+$'",
                "planned in last 1 day 12 hours and due not in previous month and due older than 2 years",
                "case status when 'sailed' then 1.50 else -2 end between 0 and 12345678901234567890",
                "not (a - b <> date '2026-03-29' + 3 days) and cutoff < time '06:30' and training = true",
                "count(distinct route) filter (where heads is not null) > 3 and share(where late > 15) >= 0.1",
                "percentile(litres, 97.5) > usual(avg(litres), 8) + 3 * spread(avg(litres), 8)",
                "reaches(fuel, threshold('fuel', vessel)) within 14 days or change_pct(fuel) > 20",
                "coalesce(reason, null, timestamp '2026-03-01 06:30') || 'x' = trim(reason)",
            })
    void theTreeAsJsonIsTheSameTree(String text) {
        var tree = Condition.parse(text);
        var json = JSON.readTree(ConditionTrees.json(tree).toString());
        assertThat(ConditionTrees.tree(json)).isEqualTo(tree);
    }

    @Test
    void anEditedTreePrintsAsText() {
        var json = JSON.readTree("""
                {"is": "comparison", "operator": "more", "left": {"is": "column", "name": "delay_min"},
                 "right": {"is": "literal", "text": "20"}}
                """);
        assertThat(Condition.print(ConditionTrees.tree(json))).isEqualTo("delay_min > 20");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{}",
                "[]",
                "null",
                "{\"is\": \"and\"}",
                "{\"is\": \"and\", \"operands\": []}",
                "{\"is\": \"and\", \"operands\": [null]}",
                "{\"is\": \"comparison\", \"operator\": \"likes\", \"left\": {\"is\": \"literal\", \"text\": \"1\"}}",
                "{\"is\": \"literal\", \"text\": \"delay_min\"}",
                "{\"is\": \"column\", \"name\": \"a b\"}",
                "{\"is\": \"call\", \"name\": \"Round(\", \"arguments\": []}",
                "{\"is\": \"history\", \"kind\": \"usual\", \"measured\": {\"is\": \"literal\", \"text\": \"1\"}, \"points\": -3}",
            })
    void whatIsNoTreeIsRefusedInWords(String json) {
        assertThatThrownBy(() -> ConditionTrees.tree(JSON.readTree(json)))
                .isInstanceOf(dev.oddsentry.core.problem.InvalidDefinitionException.class);
    }
}
