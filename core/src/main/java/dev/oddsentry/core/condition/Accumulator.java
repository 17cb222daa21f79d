package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Aggregate;
import dev.oddsentry.core.value.Numbers;
import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/** One aggregate of one group while its rows go by. Exact: nothing is rounded before the last step. */
interface Accumulator {

    /** @param value of the row's argument; never null, since nulls are left out before */
    void add(Object value);

    /** @return null where the rows say nothing, such as the sum of none */
    @Nullable
    Object result();

    /** @param order of the argument's values; used by kinds that compare them */
    static Accumulator of(Aggregate aggregate, Comparator<Object> order) {
        return switch (aggregate.kind()) {
            case COUNT -> aggregate.distinct() ? new Distinct(order) : new Count();
            case SUM -> new Sum();
            case AVG -> new Mean();
            case MIN -> new Extreme(order.reversed());
            case MAX -> new Extreme(order);
            case MEDIAN -> new Percentile(BigDecimal.valueOf(50));
            case PERCENTILE -> new Percentile(aggregate.percent() == null ? BigDecimal.ZERO : aggregate.percent());
            case STDDEV -> new Deviation();
            case SHARE -> new Share();
        };
    }

    final class Count implements Accumulator {
        private long count;

        @Override
        public void add(Object value) {
            count++;
        }

        @Override
        public Object result() {
            return count;
        }
    }

    final class Distinct implements Accumulator {
        private final TreeSet<Object> seen;

        Distinct(Comparator<Object> order) {
            this.seen = new TreeSet<>(order);
        }

        @Override
        public void add(Object value) {
            seen.add(value);
        }

        @Override
        public Object result() {
            return (long) seen.size();
        }
    }

    final class Sum implements Accumulator {
        private @Nullable Object sum;

        @Override
        public void add(Object value) {
            sum = sum == null ? value : Numbers.add(sum, value);
        }

        @Override
        public @Nullable Object result() {
            return sum;
        }
    }

    final class Mean implements Accumulator {
        private final Sum sum = new Sum();
        private long count;

        @Override
        public void add(Object value) {
            sum.add(value);
            count++;
        }

        @Override
        public @Nullable Object result() {
            Object total = sum.result();
            return total == null ? null : Numbers.divide(total, count);
        }
    }

    final class Extreme implements Accumulator {
        private final Comparator<Object> order;
        private @Nullable Object extreme;

        Extreme(Comparator<Object> order) {
            this.order = order;
        }

        @Override
        public void add(Object value) {
            if (extreme == null || order.compare(value, extreme) > 0) extreme = value;
        }

        @Override
        public @Nullable Object result() {
            return extreme;
        }
    }

    /** Interpolated between the two values nearest to the place asked for, as SQL's {@code percentile_cont}. */
    final class Percentile implements Accumulator {
        private final BigDecimal percent;
        private final List<BigDecimal> values = new ArrayList<>();
        private boolean notFinite;

        Percentile(BigDecimal percent) {
            this.percent = percent;
        }

        @Override
        public void add(Object value) {
            if (Numbers.isFinite(value)) values.add(Numbers.decimal(value));
            else notFinite = true;
        }

        @Override
        public @Nullable Object result() {
            if (notFinite) return Double.NaN;
            if (values.isEmpty()) return null;
            values.sort(Comparator.naturalOrder());
            var place = percent.multiply(BigDecimal.valueOf(values.size() - 1L)).movePointLeft(2);
            int below = place.setScale(0, RoundingMode.FLOOR).intValueExact();
            var low = values.get(below);
            var high = values.get(Math.min(below + 1, values.size() - 1));
            return low.add(high.subtract(low).multiply(place.subtract(BigDecimal.valueOf(below))));
        }
    }

    /** Of a sample; null of fewer than two. Sums are kept exact, so that nearly equal values do not cancel out. */
    final class Deviation implements Accumulator {
        private BigDecimal sum = BigDecimal.ZERO;
        private BigDecimal squares = BigDecimal.ZERO;
        private long count;
        private boolean notFinite;

        @Override
        public void add(Object value) {
            if (!Numbers.isFinite(value)) {
                notFinite = true;
                return;
            }
            var number = Numbers.decimal(value);
            sum = sum.add(number);
            squares = squares.add(number.multiply(number));
            count++;
        }

        @Override
        public @Nullable Object result() {
            if (notFinite) return Double.NaN;
            if (count < 2) return null;
            var n = BigDecimal.valueOf(count);
            var scattered = squares.multiply(n).subtract(sum.multiply(sum));
            var divisor = n.multiply(n.subtract(BigDecimal.ONE));
            return scattered.divide(divisor, MathContext.DECIMAL128).sqrt(MathContext.DECIMAL128);
        }
    }

    /** Takes every row: {@code TRUE} or not. */
    final class Share implements Accumulator {
        private long holds;
        private long all;

        @Override
        public void add(Object value) {
            all++;
            if (Boolean.TRUE.equals(value)) holds++;
        }

        @Override
        public @Nullable Object result() {
            return all == 0 ? null : Numbers.divide(holds, all);
        }
    }
}
