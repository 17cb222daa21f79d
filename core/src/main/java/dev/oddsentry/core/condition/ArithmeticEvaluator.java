package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Arithmetic;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.value.Numbers;
import dev.oddsentry.core.value.Type;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import org.jspecify.annotations.Nullable;

/** One arithmetic operation on two values of checked types. */
final class ArithmeticEvaluator {
    private final Arithmetic.Operator operator;
    private final Type left;
    private final Type right;
    private final Type result;
    private final Moments moments;

    ArithmeticEvaluator(Arithmetic.Operator operator, Type left, Type right, Type result, Moments moments) {
        this.operator = operator;
        this.left = left;
        this.right = right;
        this.result = result;
        this.moments = moments;
    }

    /** @return null where one side is an infinite moment */
    @Nullable
    Object evaluate(Object a, Object b) {
        if (left.isMoment() && right.isMoment()) return between(b, a);
        if (left.isMoment()) return shifted(a, signed((Span) b));
        if (right.isMoment()) return shifted(b, (Span) a);
        if (result == Type.DURATION) return ((Span) a).plus(signed((Span) b));
        return switch (operator) {
            case ADD -> Numbers.add(a, b);
            case SUBTRACT -> Numbers.subtract(a, b);
            case MULTIPLY -> Numbers.multiply(a, b);
            case DIVIDE -> Numbers.divide(a, b);
            case CONCATENATE -> (String) a + b;
        };
    }

    private Span signed(Span span) {
        return operator == Arithmetic.Operator.SUBTRACT ? span.negated() : span;
    }

    private @Nullable Span between(Object from, Object to) {
        if (Moments.isInfinite(from) || Moments.isInfinite(to)) return null;
        if (left == Type.DATE && right == Type.DATE) {
            return Span.of(ChronoUnit.DAYS.between((LocalDate) from, (LocalDate) to), Span.Unit.DAY);
        }
        boolean exact = left == Type.INSTANT || right == Type.INSTANT;
        return Span.between(
                exact
                        ? Duration.between(moments.instant(from), moments.instant(to))
                        : Duration.between(moments.timestamp(from), moments.timestamp(to)));
    }

    private @Nullable Object shifted(Object moment, Span span) {
        if (Moments.isInfinite(moment)) return null;
        return switch (moment) {
            case LocalDate date when result == Type.DATE -> span.addTo(date);
            case LocalDate date -> span.addTo(date.atStartOfDay());
            case LocalDateTime local -> span.addTo(local);
            case Instant instant -> span.addTo(instant.atZone(moments.zone())).toInstant();
            default -> throw new IllegalStateException("no moment: " + moment);
        };
    }
}
