package dev.oddsentry.core.evaluation;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.Seeded;
import dev.oddsentry.core.condition.Verdict;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digester;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Groups of rows, evaluated; held against sums that are added up here row by row. */
class GroupsEvaluatedTest {
    private static final Columns BUNKERING = Columns.of(
            new Column("vessel", Type.TEXT), new Column("litres", Type.NUMBER), new Column("port", Type.TEXT));
    private static final Moment SLOT = new Moment(Instant.parse("2026-11-24T04:40:00Z"), ZoneId.of("Europe/Oslo"));
    private static final String RULE = "per: [vessel]\nexceptions: sum(litres) > 900\n"
            + "severity: [ { critical: sum(litres) > 1500 }, { warning: count() >= 3 }, notice ]\n";

    private static RuleEvaluator evaluate(String more) {
        var rule = (RuleDefinition) Document.read("kind: rule\nname: fuel\nowner: Engine room\nquery: q\n" + more)
                .definition();
        return CheckedRule.check(rule, BUNKERING, Thresholds.NONE, null)
                .conditions()
                .at(SLOT, new Digester(1));
    }

    private static List<EvaluatedRow> evaluated(RuleEvaluator evaluator, List<@Nullable Object[]> rows) {
        var evaluatedRows = new ArrayList<EvaluatedRow>();
        for (var row : rows) evaluator.accept(row, evaluatedRows::add);
        assertThat(evaluatedRows)
                .as("nothing is said of a group before its last row")
                .isEmpty();
        evaluator.finish(PastSeries.NONE, evaluatedRows::add);
        return evaluatedRows;
    }

    private static @Nullable Object[] row(@Nullable String vessel, @Nullable Long litres) {
        return new Object[] {vessel, litres, "Holm"};
    }

    /** What is known of a vessel, added up by hand. */
    private static final class Sum {
        private @Nullable BigDecimal litres;
        private int rows;

        void add(@Nullable Object value) {
            rows++;
            if (value != null)
                litres = Objects.requireNonNullElse(litres, BigDecimal.ZERO).add(BigDecimal.valueOf((Long) value));
        }

        Verdict verdict() {
            if (litres == null) return Verdict.UNKNOWN;
            return litres.intValue() > 900 ? Verdict.TRUE : Verdict.FALSE;
        }

        Severity severity() {
            if (Objects.requireNonNull(litres).intValue() > 1500) return Severity.CRITICAL;
            return rows >= 3 ? Severity.WARNING : Severity.NOTICE;
        }
    }

    private static List<@Nullable Object[]> rows(Random random) {
        List<@Nullable Object[]> rows = new ArrayList<>();
        List<@Nullable String> vessels = Arrays.asList("Tjelden", "Lomvi", "Ærfugl", "tjelden", "", null);
        for (int i = random.nextInt(25); i > 0; i--)
            rows.add(row(
                    vessels.get(random.nextInt(vessels.size())),
                    random.nextInt(4) == 0 ? null : (long) random.nextInt(900)));
        return rows;
    }

    @Test
    void eachGroupIsEvaluatedOverItsRows() {
        Seeded.cases(500, random -> {
            var rows = rows(random);
            Map<@Nullable Object, Sum> sums = new LinkedHashMap<>();
            for (var row : rows) sums.computeIfAbsent(row[0], _ -> new Sum()).add(row[1]);
            var evaluator = evaluate(RULE);
            var evaluatedRows = evaluated(evaluator, rows);

            assertThat(evaluatedRows).hasSize(sums.size());
            Map<@Nullable Object, EvaluatedRow> byVessel = new HashMap<>();
            for (var each : evaluatedRows) byVessel.put(each.identity().getFirst(), each);
            sums.forEach((vessel, sum) -> {
                var evaluatedRow = Objects.requireNonNull(byVessel.get(vessel));
                assertThat(evaluatedRow.isException()).isEqualTo(sum.verdict() == Verdict.TRUE);
                assertThat(evaluatedRow.evaluated()).isEqualTo(sum.verdict() != Verdict.UNKNOWN);
                if (evaluatedRow.isException())
                    assertThat(evaluatedRow.severity()).isEqualTo(sum.severity());
            });
            long unknown = sums.values().stream()
                    .filter(sum -> sum.verdict() == Verdict.UNKNOWN)
                    .count();
            assertThat(evaluator.unevaluated()).hasSize((int) unknown);
            assertThat(evaluator.unknownRows()).isEqualTo(unknown);
            assertThat(evaluator.groupsWithRows()).hasSize(sums.size());
        });
    }

    @Test
    void theOrderOfRowsChangesNoGroup() {
        Seeded.cases(100, random -> {
            var rows = rows(random);
            var shuffled = new ArrayList<>(rows);
            java.util.Collections.shuffle(shuffled, random);
            assertThat(Set.copyOf(evaluated(evaluate(RULE), shuffled)))
                    .usingRecursiveComparison()
                    .ignoringCollectionOrder()
                    .isEqualTo(Set.copyOf(evaluated(evaluate(RULE), rows)));
        });
    }

    @Test
    void whyAGroupIsUnknownIsSaid() {
        var evaluator = evaluate(RULE);
        evaluated(evaluator, List.of(row("Tjelden", 1000L), row("Lomvi", null)));
        assertThat(evaluator.unevaluated())
                .containsExactly(new RuleEvaluator.UnknownGroup(List.of("Lomvi"), "sum(litres) is missing"));
    }

    @ParameterizedTest
    @CsvSource({"count() = 0, true", "count() > 0, false", "sum(litres) > 0, false"})
    void expectedGroupIsEvaluatedWithoutRows(String condition, boolean exception) {
        var evaluator = evaluate("per: [vessel]\nexceptions: " + condition + "\n");
        evaluator.expect(List.of("Havella"));
        var evaluatedRow = evaluated(evaluator, List.of()).getFirst();
        assertThat(evaluatedRow.identity()).containsExactly("Havella");
        assertThat(evaluatedRow.isException()).isEqualTo(exception);
        assertThat(evaluator.groupsWithRows()).isEmpty();
    }

    @Test
    void anExpectedGroupThatHasRowsIsThereOnce() {
        var evaluator = evaluate(RULE);
        evaluator.expect(List.of("Tjelden"));
        assertThat(evaluated(evaluator, List.<Object[]>of(row("Tjelden", 1000L))))
                .hasSize(1);
    }

    @Test
    void theWholeResultIsOneGroupEvenWithoutRows() {
        var evaluatedRows = evaluated(evaluate("per: []\nexceptions: count() = 0\n"), List.of());
        assertThat(evaluatedRows).singleElement().satisfies(only -> {
            assertThat(only.identity()).isEmpty();
            assertThat(only.isException()).isTrue();
        });
    }

    @Test
    void whatIsSoughtIsExplainedWithItsParts() {
        var evaluator =
                evaluate("per: [vessel]\nexceptions: count() >= 2 and sum(litres) > 900\nseverity: [critical]\n");
        var digester = new Digester(1);
        evaluator.seek(digester.digest(List.of("Lomvi")));
        evaluated(evaluator, List.of(row("Tjelden", 1000L), row("Lomvi", 500L), row("Lomvi", 300L)));
        var sought = evaluator.sought().orElseThrow();
        assertThat(sought.verdict()).isEqualTo(Verdict.FALSE);
        assertThat(sought.severity()).isNull();
        assertThat(sought.parts()).hasSize(2);
        assertThat(sought.parts().get(0).toString()).contains("count() >= 2");

        var elsewhere = evaluate("per: [vessel]\nexceptions: count() >= 2\n");
        elsewhere.seek(digester.digest(List.of("Ærfugl")));
        evaluated(elsewhere, List.<Object[]>of(row("Tjelden", 1L)));
        assertThat(elsewhere.sought()).isEmpty();
    }

    @Test
    void measuresAreKeptAsPointsAndMayBeNamedInConditions() {
        var evaluator = evaluate("per: [vessel]\nmeasures: { fuel: { value: sum(litres), unit: l } }\n"
                + "exceptions: fuel > 900 and change(fuel) > 0\n");
        var evaluatedRows = evaluated(evaluator, List.of(row("Tjelden", 1000L), row("Lomvi", 100L)));
        assertThat(evaluator.points())
                .extracting(point -> point.per() + " " + point.value())
                .containsExactly("[Tjelden] 1000", "[Lomvi] 100");
        assertThat(evaluatedRows)
                .as("nothing was measured before, so the change is unknown where the first part is true")
                .extracting(EvaluatedRow::evaluated)
                .containsExactly(false, true);
        assertThat(evaluator.unevaluated()).hasSize(1);
    }

    @Test
    void groupsThatDifferOnlyInCaseOrSpaceAreApart() {
        var keys = new HashSet<>();
        for (var each : evaluated(
                evaluate(RULE), List.of(row("Lomvi", 1L), row("lomvi", 1L), row("Lomvi ", 1L), row(null, 1L))))
            keys.add(each.key());
        assertThat(keys).hasSize(4);
    }
}
