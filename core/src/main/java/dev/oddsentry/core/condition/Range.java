package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Aggregate;
import dev.oddsentry.core.condition.Expression.Comparison;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.Type;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * The values of one subject for which a comparison with literals holds: from {@code low} to {@code high}, each open where it is null,
 * and without {@code hole}.
 */
record Range(
        Expression subject,
        Ordering order,
        @Nullable Object low,
        boolean lowIn,
        @Nullable Object high,
        boolean highIn,
        @Nullable Object hole) {

    /** Of a comparison or a {@code between} of something with literals of its type; empty for anything else. */
    static Optional<Range> of(Expression node, Map<Expression, Type> types) {
        return switch (node) {
            case Comparison(var operator, var left, Expression.Literal right) ->
                ofComparison(left, operator, right, types);
            case Comparison(var operator, Expression.Literal left, var right) ->
                ofComparison(right, mirrored(operator), left, types);
            case Expression.Between(var subject, Expression.Literal low, Expression.Literal high, boolean negated)
            when !negated && fits(subject, low, types) && fits(subject, high, types) ->
                Optional.of(new Range(subject, order(subject, types), low.value(), true, high.value(), true, null));
            default -> Optional.empty();
        };
    }

    private static Optional<Range> ofComparison(
            Expression subject, Comparison.Operator operator, Expression.Literal literal, Map<Expression, Type> types) {
        if (subject instanceof Expression.Literal || !fits(subject, literal, types)) return Optional.empty();
        return Optional.of(of(subject, order(subject, types), operator, literal.value()));
    }

    private static Range of(Expression subject, Ordering order, Comparison.Operator operator, @Nullable Object value) {
        return switch (operator) {
            case EQUAL -> new Range(subject, order, value, true, value, true, null);
            case UNEQUAL -> new Range(subject, order, null, false, null, false, value);
            case LESS -> new Range(subject, order, null, false, value, false, null);
            case AT_MOST -> new Range(subject, order, null, false, value, true, null);
            case MORE -> new Range(subject, order, value, false, null, false, null);
            case AT_LEAST -> new Range(subject, order, value, true, null, false, null);
        };
    }

    private static Comparison.Operator mirrored(Comparison.Operator operator) {
        return switch (operator) {
            case EQUAL, UNEQUAL -> operator;
            case LESS -> Comparison.Operator.MORE;
            case AT_MOST -> Comparison.Operator.AT_LEAST;
            case MORE -> Comparison.Operator.LESS;
            case AT_LEAST -> Comparison.Operator.AT_MOST;
        };
    }

    private static boolean fits(Expression subject, Expression.Literal literal, Map<Expression, Type> types) {
        Type type = types.get(subject);
        return literal.value() != null
                && type == literal.type()
                && type != Type.DURATION
                && type != Type.TRUTH
                && type != Type.BYTES;
    }

    private static Ordering order(Expression subject, Map<Expression, Type> types) {
        Type type = TypeChecker.typeOf(types, subject);
        return new Ordering(type, type, new Moments(new Moment(Instant.EPOCH, ZoneOffset.UTC)));
    }

    /** All values that the subject can have at all. */
    static Range domainOf(Expression subject, Map<Expression, Type> types) {
        boolean share = subject instanceof Aggregate aggregate && aggregate.kind() == Aggregate.Kind.SHARE;
        boolean neverNegative = share
                || (subject instanceof Aggregate aggregate
                        && (aggregate.kind() == Aggregate.Kind.COUNT || aggregate.kind() == Aggregate.Kind.STDDEV))
                || (subject instanceof Expression.Call call
                        && (call.name().equals("length") || call.name().equals("abs")));
        return new Range(
                subject, order(subject, types), neverNegative ? 0L : null, true, share ? 1L : null, true, null);
    }

    /** The values for which both hold. */
    Range with(Range other) {
        int lows = bound(low, other.low, -1);
        int highs = bound(high, other.high, 1);
        boolean ownLow = lows > 0 || (lows == 0 && !lowIn);
        boolean ownHigh = highs < 0 || (highs == 0 && !highIn);
        return new Range(
                subject,
                order,
                ownLow ? low : other.low,
                ownLow ? lowIn : other.lowIn,
                ownHigh ? high : other.high,
                ownHigh ? highIn : other.highIn,
                hole == null ? other.hole : hole);
    }

    /** @param open the sign of a bound that is open */
    private int bound(@Nullable Object a, @Nullable Object b, int open) {
        if (a == null || b == null) return a == null && b == null ? 0 : a == null ? open : -open;
        return order.compare(a, b);
    }

    /** The values for which it does not hold, where these are one range. */
    Optional<Range> complement() {
        if (hole != null)
            return low == null && high == null
                    ? Optional.of(new Range(subject, order, hole, true, hole, true, null))
                    : Optional.empty();
        if (low == null && high == null) return Optional.empty();
        if (low != null && high != null) {
            boolean point = order.compare(low, high) == 0 && lowIn && highIn;
            return point ? Optional.of(new Range(subject, order, null, false, null, false, low)) : Optional.empty();
        }
        return Optional.of(new Range(subject, order, high, !highIn, low, !lowIn, null));
    }

    boolean isEmpty() {
        if (low == null || high == null) return false;
        int span = order.compare(low, high);
        boolean point = span == 0 && lowIn && highIn;
        if (point) return hole != null && order.compare(hole, low) == 0;
        return span >= 0;
    }
}
