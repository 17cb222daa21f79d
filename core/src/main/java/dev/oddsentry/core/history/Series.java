package dev.oddsentry.core.history;

import dev.oddsentry.core.value.Numbers;
import java.math.BigDecimal;
import java.math.MathContext;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * One measured value over the checks before the present one.
 *
 * @param points oldest first, at most one a slot, all before the present slot
 */
public record Series(List<Point> points) {
    public static final Series EMPTY = new Series(List.of());

    /** A line through fewer points than this says nothing. */
    public static final int FEWEST_FOR_TREND = 4;

    /** Slopes are calculated between all pairs, so a long series is thinned to this many points first. */
    private static final int MOST_FOR_TREND = 200;

    public record Point(Instant slot, BigDecimal value) {}

    public Optional<BigDecimal> previous() {
        return points.isEmpty()
                ? Optional.empty()
                : Optional.of(points.getLast().value());
    }

    /** The median of the last {@code n}; empty with fewer than half of them. */
    public Optional<BigDecimal> usual(int n) {
        var last = last(n);
        return last.size() * 2 < n ? Optional.empty() : Optional.of(median(last));
    }

    /** The median of the distances from the usual value; empty with fewer than half of {@code n}. */
    public Optional<BigDecimal> spread(int n) {
        return usual(n).map(usual -> median(
                last(n).stream().map(value -> value.subtract(usual).abs()).toList()));
    }

    /** How many of the last {@code n} there are. */
    public int learned(int n) {
        return Math.min(n, points.size());
    }

    /**
     * Where the value will be after {@code ahead}, if it goes on as over as long a stretch before: along the median of the slopes
     * between all pairs of points (Theil and Sen), so that one odd value does not bend the line.
     *
     * @param now the present value, at {@code slot}
     * @return empty with fewer than {@link #FEWEST_FOR_TREND} points, the present one among them
     */
    public Optional<BigDecimal> projected(Instant slot, BigDecimal now, Duration ahead) {
        var stretch = new ArrayList<Point>();
        for (var point : points) if (!point.slot().isBefore(slot.minus(ahead))) stretch.add(point);
        stretch.add(new Point(slot, now));
        if (stretch.size() < FEWEST_FOR_TREND) return Optional.empty();
        return Optional.of(now.add(slope(thinned(stretch)).multiply(seconds(ahead)), MathContext.DECIMAL128));
    }

    private static List<Point> thinned(List<Point> stretch) {
        if (stretch.size() <= MOST_FOR_TREND) return stretch;
        var some = new ArrayList<Point>();
        for (int i = 0; i < MOST_FOR_TREND; i++) {
            some.add(stretch.get((int) ((long) i * (stretch.size() - 1) / (MOST_FOR_TREND - 1))));
        }
        return some;
    }

    private static BigDecimal slope(List<Point> stretch) {
        var slopes = new ArrayList<BigDecimal>();
        for (int i = 0; i < stretch.size(); i++) {
            for (int j = i + 1; j < stretch.size(); j++) slopes.add(slope(stretch.get(i), stretch.get(j)));
        }
        return median(slopes);
    }

    private static BigDecimal slope(Point from, Point to) {
        var rise = to.value().subtract(from.value());
        return rise.divide(seconds(Duration.between(from.slot(), to.slot())), MathContext.DECIMAL128);
    }

    private static BigDecimal seconds(Duration length) {
        return BigDecimal.valueOf(length.getSeconds()).add(BigDecimal.valueOf(length.getNano(), 9));
    }

    private List<BigDecimal> last(int n) {
        return points.subList(Math.max(0, points.size() - n), points.size()).stream()
                .map(Point::value)
                .toList();
    }

    /** @param values one or more; the mean of the middle two where they are even in number */
    private static BigDecimal median(List<BigDecimal> values) {
        var sorted = values.stream().sorted().toList();
        var upper = sorted.get(sorted.size() / 2);
        if (sorted.size() % 2 == 1) return upper;
        return sorted.get(sorted.size() / 2 - 1).add(upper).divide(BigDecimal.TWO, MathContext.DECIMAL128);
    }

    /** The change in percent of the former value's size; null where that was zero. */
    public static @Nullable BigDecimal changeInPercent(BigDecimal before, BigDecimal now) {
        if (before.signum() == 0) return null;
        return now.subtract(before).multiply(BigDecimal.valueOf(100)).divide(before.abs(), MathContext.DECIMAL128);
    }

    /** A number as a point can hold it; null for NaN and infinities. */
    public static @Nullable BigDecimal pointOf(@Nullable Object number) {
        return number == null || !Numbers.isFinite(number) ? null : Numbers.decimal(number);
    }
}
