package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Aggregate;
import dev.oddsentry.core.condition.Expression.History;
import dev.oddsentry.core.history.Series;
import dev.oddsentry.core.time.Moment;
import java.math.BigDecimal;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Makes one row of each group: its {@code per} values, then every aggregate, measure and history value in the order in which they
 * are calculated. Bound to one slot; stateless, since each {@link Group} keeps its own.
 */
public final class GroupEvaluator {
    private final Moment moment;
    private final int perCount;
    private final List<Part> parts;
    private final int aggregates;

    /** One column of the group's row after the {@code per} values. */
    sealed interface Part {
        /** @param argument null for every row */
        record OfRows(
                Aggregate tree,
                @Nullable Node argument,
                @Nullable Node filter,
                Comparator<Object> order) implements Part {}

        /** @param recorded the series its values are kept in; null where they are not numbers */
        record Measure(Node value, Grouping.@Nullable Measured recorded) implements Part {}

        record OfHistory(
                History tree, Node measured, @Nullable Node target, Grouping.Measured series) implements Part {}
    }

    GroupEvaluator(Moment moment, int perCount, List<Part> parts) {
        this.moment = moment;
        this.perCount = perCount;
        this.parts = List.copyOf(parts);
        this.aggregates =
                (int) parts.stream().filter(Part.OfRows.class::isInstance).count();
    }

    /** A group while its rows go by. */
    public final class Group {
        private final Accumulator[] accumulators = new Accumulator[aggregates];

        private Group() {
            int i = 0;
            for (var part : parts) {
                if (part instanceof Part.OfRows(var tree, var _, var _, var order))
                    accumulators[i++] = Accumulator.of(tree, order);
            }
        }

        /** @throws RowFailureException if an aggregate's argument or filter cannot be calculated on this row */
        public void add(@Nullable Object[] row) {
            int i = 0;
            for (var part : parts) {
                if (!(part instanceof Part.OfRows ofRows)) continue;
                var accumulator = accumulators[i++];
                if (ofRows.filter != null && !Boolean.TRUE.equals(ofRows.filter.on(row))) continue;
                Object value = ofRows.argument == null ? Boolean.TRUE : ofRows.argument.on(row);
                // Of a share, an unknown row counts among all, but not among those for which it holds.
                if (value == null && ofRows.tree.kind() == Aggregate.Kind.SHARE) value = Boolean.FALSE;
                if (value != null) accumulator.add(value);
            }
        }
    }

    public Group newGroup() {
        return new Group();
    }

    /**
     * @param cells the group's row
     * @param points what was measured now, by series
     * @param learning what history was too short to say
     */
    public record GroupRow(
            @Nullable Object[] cells, Map<Grouping.Measured, BigDecimal> points, List<Learning> learning) {}

    /** {@code usual(fuel, 8)} with only 3 of the 4 points that it needs at least. */
    public record Learning(String text, int have, int of) {
        public String words() {
            return "still learning " + text + ", " + have + " of " + of;
        }
    }

    /**
     * @param past the group's series before the present slot
     * @throws RowFailureException if a measure cannot be calculated on this group
     */
    public GroupRow finish(
            List<? extends @Nullable Object> per, Group group, Function<Grouping.Measured, Series> past) {
        var cells = new @Nullable Object[perCount + parts.size()];
        for (int i = 0; i < perCount; i++) cells[i] = per.get(i);
        var points = new LinkedHashMap<Grouping.Measured, BigDecimal>();
        var learning = new ArrayList<Learning>();
        int accumulator = 0;
        for (int i = 0; i < parts.size(); i++) {
            cells[perCount + i] = switch (parts.get(i)) {
                case Part.OfRows _ -> group.accumulators[accumulator++].result();
                case Part.Measure(var node, var recorded) -> {
                    Object value = node.on(cells);
                    if (recorded != null) keep(points, recorded, value);
                    yield value;
                }
                case Part.OfHistory history -> {
                    keep(points, history.series, history.measured.on(cells));
                    yield ofHistory(history, cells, past.apply(history.series), learning);
                }
            };
        }
        return new GroupRow(cells, points, learning);
    }

    private static void keep(
            Map<Grouping.Measured, BigDecimal> points, Grouping.Measured series, @Nullable Object value) {
        var point = Series.pointOf(value);
        if (point != null) points.put(series, point);
    }

    private @Nullable Object ofHistory(
            Part.OfHistory part, @Nullable Object[] cells, Series past, List<Learning> learning) {
        var now = Series.pointOf(part.measured.on(cells));
        var tree = part.tree;
        return switch (tree.kind()) {
            case PREVIOUS -> past.previous().orElse(null);
            case CHANGE ->
                now == null ? null : past.previous().map(now::subtract).orElse(null);
            case CHANGE_PCT ->
                now == null
                        ? null
                        : past.previous()
                                .map(before -> Series.changeInPercent(before, now))
                                .orElse(null);
            case USUAL -> learned(tree, past.usual(points(tree)).orElse(null), past, learning);
            case SPREAD -> learned(tree, past.spread(points(tree)).orElse(null), past, learning);
            case REACHES -> {
                var target = part.target == null ? null : Series.pointOf(part.target.on(cells));
                var projected = now == null
                        ? null
                        : past.projected(moment.slot(), now, aheadOf(tree)).orElse(null);
                if (now != null && projected == null) {
                    int have = past.learned(Series.FEWEST_FOR_TREND - 1) + 1;
                    learning.add(new Learning(Printer.print(tree), have, Series.FEWEST_FOR_TREND));
                }
                yield target == null || now == null || projected == null ? null : isBetween(target, now, projected);
            }
        };
    }

    private static @Nullable Object learned(
            History tree, @Nullable Object value, Series past, List<Learning> learning) {
        if (value == null) learning.add(new Learning(Printer.print(tree), past.learned(points(tree)), points(tree)));
        return value;
    }

    private static int points(History tree) {
        return tree.points() == null ? 0 : tree.points();
    }

    private Duration aheadOf(History tree) {
        return tree.within() == null
                ? Duration.ZERO
                : Duration.between(
                        moment.slot(), tree.within().addTo(moment.local()).toInstant());
    }

    private static boolean isBetween(BigDecimal target, BigDecimal now, BigDecimal then) {
        return now.min(then).compareTo(target) <= 0 && target.compareTo(now.max(then)) <= 0;
    }
}
