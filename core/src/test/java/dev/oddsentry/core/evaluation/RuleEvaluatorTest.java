package dev.oddsentry.core.evaluation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.condition.WorseOrder;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digester;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.Absence;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RuleEvaluatorTest {
    private static final Columns COLUMNS = Columns.of(
            new Column("sailing", Type.TEXT),
            new Column("delay_min", Type.NUMBER),
            new Column("reason", Type.TEXT),
            new Column("planned", Type.INSTANT));
    private static final Moment SLOT = new Moment(Instant.parse("2026-11-24T04:40:00Z"), ZoneId.of("Europe/Oslo"));

    private static RuleDefinition rule(String more) {
        return (RuleDefinition) Document.read("kind: rule\nname: late\nowner: Traffic reporting\nquery: q\n" + more)
                .definition();
    }

    private static RuleEvaluator evaluate(String more) {
        return CheckedRule.check(rule(more), COLUMNS, Thresholds.NONE, null)
                .conditions()
                .at(SLOT, new Digester(1));
    }

    private static EvaluatedRow sighted(RuleEvaluator evaluator, Object[] row) {
        var evaluatedRows = new ArrayList<EvaluatedRow>();
        evaluator.accept(row, evaluatedRows::add);
        return evaluatedRows.getFirst();
    }

    @Test
    void emptyTextsAreCountedWhereTheConditionAsksForMissingOnes() {
        var conditions = CheckedRule.check(
                        rule("exceptions: reason is null\nmemory: { key: [sailing] }"), COLUMNS, Thresholds.NONE, null)
                .conditions();
        var texts = conditions.seenTexts();
        for (String reason : new String[] {"fog", null, "", "   ", "\t"})
            texts.see(new Object[] {"SK-1", 20L, reason, SLOT.slot()});
        assertThat(texts.emptyTexts())
                .containsExactly(new SeenTexts.Empty("reason", 2, "coalesce(trim(reason), '') = ''"));
    }

    private static Object[] late(String sailing, Long minutes) {
        return new Object[] {sailing, minutes, null, SLOT.slot()};
    }

    @Test
    void theFirstBandThatHoldsIsTheSeverityAndItsCellsAreMarkedToo() {
        var evaluator = evaluate("""
                exceptions: reason is null
                severity: [ { critical: delay_min >= 45 }, { warning: delay_min > 15 }, notice ]
                memory: { key: [sailing] }
                """);
        assertThat(sighted(evaluator, late("SK-1", 71L)).severity()).isEqualTo(Severity.CRITICAL);
        assertThat(sighted(evaluator, late("SK-2", 20L)).severity()).isEqualTo(Severity.WARNING);
        assertThat(sighted(evaluator, late("SK-3", 5L)).severity()).isEqualTo(Severity.NOTICE);
        assertThat(sighted(evaluator, late("SK-4", null)).severity())
                .as("a band that is unknown is false")
                .isEqualTo(Severity.NOTICE);
        assertThat(evaluator.marks(Arrays.asList(late("SK-1", 71L)))).containsExactlyInAnyOrder(1, 2);
    }

    @Test
    void theValuesNearestToTheBoundsAreKeptForThoseWhoLookOn() {
        var conditions =
                CheckedRule.check(rule("""
                                exceptions: delay_min > 600 and reason is null
                                severity: [ { critical: delay_min >= 900 }, { warning: planned older than 3 days }, notice ]
                                memory: { key: [sailing] }
                                """), COLUMNS, Thresholds.NONE, null).conditions();
        var evaluator = conditions.at(SLOT, new Digester(1));
        sighted(evaluator, late("SK-1", 20L));
        assertThat(evaluator.extremes()).as("nobody looks on").isEmpty();
        evaluator.keepExtremes(conditions.bounds());
        assertThat(evaluator.extremes()).as("no row").isEmpty();
        for (Long minutes : new Long[] {20L, null, 95L, 3L}) sighted(evaluator, late("SK-1", minutes));
        assertThat(evaluator.extremes())
                .as("of the exceptions' bound alone, and once")
                .containsExactly(new RuleEvaluator.Extreme(new WorseOrder(1, true), 95L));
        assertThat(evaluator.worseOrder()).containsExactly(new WorseOrder(1, true), new WorseOrder(3, false));
    }

    @Test
    void withoutKeyColumnsEqualRowsAreNumberedByCopy() {
        var evaluator = evaluate("memory: { mode: full }\n");
        var first = sighted(evaluator, late("SK-1", 20L));
        var second = sighted(evaluator, late("SK-1", 20L));
        assertThat(first.key()).isNotEqualTo(second.key());
        assertThat(second.identity()).endsWith(2L);
        assertThat(sighted(evaluate("memory: { mode: full }\n"), late("SK-1", 20L))
                        .key())
                .as("the same at every check")
                .isEqualTo(first.key());
    }

    @Test
    void theFingerprintFollowsTheWatchedColumnsAndNoOthers() {
        var byCondition = evaluate("exceptions: delay_min > 15\nmemory: { key: [sailing] }\n");
        Object[] withReason = late("SK-1", 20L);
        withReason[2] = "fog";
        assertThat(sighted(byCondition, late("SK-1", 20L)).fingerprint())
                .isEqualTo(sighted(byCondition, withReason).fingerprint());
        assertThat(sighted(byCondition, late("SK-1", 21L)).fingerprint())
                .isNotEqualTo(sighted(byCondition, withReason).fingerprint());
        var watching = evaluate("exceptions: delay_min > 15\nmemory: { key: [sailing], watch: [reason] }\n");
        assertThat(sighted(watching, late("SK-1", 20L)).fingerprint())
                .isNotEqualTo(sighted(watching, withReason).fingerprint());
    }

    @ParameterizedTest
    @CsvSource({
        "exceptions: delay_min > 15,                false, CLEARS",
        "exceptions: delay_min > 15,                true,  AGES_OUT",
        "exceptions: planned in last 7 days,        false, AGES_OUT",
    })
    void absenceIsPassedByWhereAnythingMovesWithTheSlot(String exceptions, boolean parametersMove, Absence absence) {
        var rule = rule(exceptions + "\nmemory: { key: [sailing] }\n");
        assertThat(CheckedRule.check(rule, COLUMNS, Thresholds.NONE, null)
                        .conditions()
                        .absence(rule, parametersMove))
                .isEqualTo(absence);
        var saying = rule(exceptions + "\nmemory: { key: [sailing], absence: stays_open }\n");
        assertThat(CheckedRule.check(saying, COLUMNS, Thresholds.NONE, null)
                        .conditions()
                        .absence(saying, parametersMove))
                .isEqualTo(Absence.STAYS_OPEN);
    }

    @Test
    void allProblemsWithColumnsAreReturnedTogether() {
        var rule = rule(
                "exceptions: delay > 15\nseverity: [ { critical: reson is null }, warning ]\nmemory: { key: [sailling], watch: [x] }\ndelivery: { columns: [plannd] }\n");
        assertThatThrownBy(() -> CheckedRule.check(rule, COLUMNS, Thresholds.NONE, null))
                .isInstanceOfSatisfying(InvalidDefinitionException.class, refused -> {
                    assertThat(refused.problems())
                            .extracting(problem -> problem.field())
                            .containsExactly(
                                    "exceptions",
                                    "severity[0].critical",
                                    "memory.key[0]",
                                    "memory.watch[0]",
                                    "delivery.columns[0]");
                    assertThat(refused.problems())
                            .extracting(problem -> problem.suggestion())
                            .containsExactly(null, "reason", "sailing", null, "planned");
                });
    }
}
