package dev.oddsentry.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.condition.Grouping.Measured;
import dev.oddsentry.core.history.Series;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.threshold.ThresholdTable;
import dev.oddsentry.core.threshold.ThresholdTable.Value;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class GroupsTest {
    private static final Columns BUNKERING = Columns.of(
            new Column("vessel", Type.TEXT),
            new Column("litres", Type.NUMBER),
            new Column("miles", Type.NUMBER),
            new Column("day", Type.DATE));
    private static final Moment SLOT = new Moment(Instant.parse("2026-11-24T04:40:00Z"), ZoneId.of("Europe/Oslo"));
    private static final Thresholds THRESHOLDS = Thresholds.of(List.of(
            new ThresholdTable(
                    "fuel",
                    "Fuel",
                    "l",
                    List.of("vessel"),
                    List.of(
                            new Value(List.of(), null, BigDecimal.valueOf(6)),
                            new Value(List.of("Terna"), LocalDate.of(2026, 11, 1), BigDecimal.valueOf(4)),
                            new Value(List.of("Terna"), LocalDate.of(2026, 12, 1), BigDecimal.valueOf(9)))),
            new ThresholdTable("planned", "Planned", null, List.of(), List.of())));
    private static final Object[][] ROWS = {
        row("Terna", 50, 10L), row("Terna", "60.5", 10L), row("Terna", null, 10L), row("Terna", 40, 0L),
    };

    private static Object[] row(String vessel, @Nullable Object litres, Long miles) {
        Object exact =
                litres instanceof String text ? new BigDecimal(text) : litres instanceof Integer i ? (long) i : litres;
        return new Object[] {vessel, exact, miles, LocalDate.of(2026, 11, 20)};
    }

    private static @Nullable Object value(String expression, Object[][] rows, Series past) {
        var grouping = new Grouping(BUNKERING, new int[] {0}, THRESHOLDS);
        assertThat(grouping.measure("it", expression)).noneMatch(Problem::stopsSave);
        return cells(grouping, rows, _ -> past)[grouping.columns().require("it")];
    }

    private static @Nullable Object[] cells(Grouping grouping, Object[][] rows, Function<Measured, Series> past) {
        var evaluator = grouping.at(SLOT);
        var group = evaluator.newGroup();
        for (var row : rows) group.add(row);
        return evaluator.finish(Arrays.asList("Terna"), group, past).cells();
    }

    private static Series series(int... values) {
        var points = new ArrayList<Series.Point>();
        for (int i = 0; i < values.length; i++) {
            Instant slot = SLOT.slot().minus(Duration.ofDays(values.length - i));
            points.add(new Series.Point(slot, BigDecimal.valueOf(values[i])));
        }
        return new Series(points);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "count(); 4; 0",
                "count(*); 4; 0",
                "count(litres); 3; 0",
                "count(distinct miles); 2; 0",
                "count() filter (where litres is null); 1; 0",
                "sum(litres); 150.5; null",
                "sum(litres) filter (where miles > 100); null; null",
                "avg(miles); 7.5; null",
                "min(litres); 40; null",
                "max(litres + 1); 61.5; null",
                "median(litres); 50; null",
                "percentile(litres, 25); 45; null",
                "percentile(litres, 100); 60.5; null",
                "stddev(miles); 5; null",
                "stddev(litres) filter (where litres = 40); null; null",
                "share(where litres > 45); 0.5; null",
                "share(where litres > 45) filter (where miles > 0); 0.6666666666666666666666666666666667; null",
                "sum(litres) / sum(miles); 5.016666666666666666666666666666667; null",
                "case when count() = 0 then -1 else max(litres) end; 60.5; -1",
                "threshold('fuel', vessel); 4; 4",
                "coalesce(threshold('planned'), 7); 7; 7",
            })
    void anAggregateIsExact(String expression, String ofRows, String ofNone) {
        assertThat(text(value(expression, ROWS, Series.EMPTY))).isEqualTo(ofRows);
        assertThat(text(value(expression, new Object[0][], Series.EMPTY))).isEqualTo(ofNone);
    }

    private static String text(@Nullable Object value) {
        return value instanceof BigDecimal number ? number.stripTrailingZeros().toPlainString() : String.valueOf(value);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "previous(max(litres)); 44",
                "change(max(litres)); 16.5",
                "change_pct(max(litres)); 37.5",
                "usual(max(litres), 3); 44",
                "usual(max(litres), 4); 43.5",
                "spread(max(litres), 5); 1",
                "usual(max(litres), 12); null",
                "reaches(max(litres), 62) within 4 days; true",
                "reaches(max(litres), 90) within 4 days; false",
                "reaches(max(litres), 10) within 30 days; false",
                "max(litres) > usual(max(litres), 5) + 3 * spread(max(litres), 5); true",
            })
    void thePresentIsHeldAgainstTheChecksBefore(String expression, String expected) {
        assertThat(text(value(expression, ROWS, series(40, 42, 43, 45, 44)))).isEqualTo(expected);
    }

    @Test
    void aMeasureMayNameOneBeforeItAndAnotherMeaningIsAnotherSeries() {
        var grouping = new Grouping(BUNKERING, new int[] {0}, THRESHOLDS);
        grouping.measure("fuel", "sum(litres) / sum(miles)");
        var condition = grouping.condition("fuel > threshold('fuel', vessel) or fuel > previous(fuel)");
        assertThat(condition.problems()).isEmpty();
        var needs = grouping.needs();
        assertThat(needs.keySet()).containsExactly(new Measured("fuel", "fuel; fuel: sum(litres) / sum(miles)"));
        var cells = cells(grouping, ROWS, _ -> series(3));
        var evaluator = condition.orThrow().at(SLOT);
        assertThat(evaluator.evaluate(cells)).isEqualTo(Verdict.TRUE);
        assertThat(evaluator.marks(cells).stream()
                        .map(i -> grouping.columns().at(i).name()))
                .containsExactlyInAnyOrder("vessel", "fuel", "previous(fuel)");
        assertThat(grouping.shown()).containsExactly("vessel", "fuel", "previous(fuel)");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "litres > 5 | litres belongs to single rows; take an aggregate of it, such as max(litres), or group by it with per:",
                "sum(count()) > 5 | an aggregate cannot contain another",
                "sum(vessel) > 5 | sum needs a number, this is a text",
                "usual(previous(count()), 3) > 5 | history cannot be taken of history",
                "previous(5) > 5 | this is not measured over rows; write an aggregate or a measure",
                "knots > 5 | unknown name \"knots\"; the group has: vessel",
                "sum(litrs) > 5 | unknown column \"litrs\"; the query returns: vessel, litres, miles, day; did you mean litres",
                "threshold('fule', vessel) > 5 | there is no threshold \"fule\"; did you mean fuel",
                "threshold('fuel') > 5 | this threshold is kept by vessel; write threshold('fuel', vessel)",
                "percentile(litres, 101) > 5 | unexpected \"101\", expected a percentage from 0 to 100",
                "usual(count(), 1) > 5 | unexpected \"1\", expected how many of the last checks to look at, from 2 to 1000",
            })
    void whatCannotBeMeasuredIsRefusedInWords(String condition, String words) {
        var grouping = new Grouping(BUNKERING, new int[] {0}, THRESHOLDS);
        var problem = grouping.condition(condition).problems().getFirst();
        String said =
                problem.message() + (problem.suggestion() == null ? "" : "; did you mean " + problem.suggestion());
        assertThat(said).isEqualTo(words);
    }

    @Test
    void anAggregateOverOneRowIsRefused() {
        assertThat(Condition.read("count() > 5", BUNKERING)
                        .problems()
                        .getFirst()
                        .message())
                .startsWith("count is over many rows; a rule that has per:");
    }

    @Test
    void aGroupWithoutAnAggregateCanBeCountedTooAndOneStillLearningCannot() {
        var grouping = new Grouping(BUNKERING, new int[] {0}, THRESHOLDS);
        var condition =
                grouping.condition("sum(litres) > usual(sum(litres), 8)").orThrow();
        assertThat(condition.countingMissing(0, "sum(litres)"))
                .contains("sum(litres) > usual(sum(litres), 8) or sum(litres) is null");
        assertThat(condition.countingMissing(0, "usual(sum(litres), 8)")).isEmpty();
    }
}
