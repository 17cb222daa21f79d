package dev.oddsentry.core.condition;

import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.value.Numbers;
import dev.oddsentry.core.value.Texts;
import dev.oddsentry.core.value.Type;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Comparator;

/** How two values of checked types compare. */
final class Ordering {
    private final Type common;
    private final Moments moments;

    Ordering(Type left, Type right, Moments moments) {
        this.common = common(left, right);
        this.moments = moments;
    }

    private static Type common(Type left, Type right) {
        if (left == right) return left;
        if (left == Type.NULL || right == Type.NULL) return left == Type.NULL ? right : left;
        return left == Type.INSTANT || right == Type.INSTANT ? Type.INSTANT : Type.TIMESTAMP;
    }

    /** False where the comparison is unknown though both values are there: NaN, infinite numbers, months against days. */
    boolean isDecidable(Object a, Object b) {
        return switch (common) {
            case NUMBER -> Numbers.isFinite(a) && Numbers.isFinite(b);
            case DURATION -> comparable((Span) a, (Span) b);
            default -> true;
        };
    }

    private static boolean comparable(Span a, Span b) {
        boolean onlyMonths = isOnlyMonths(a) && isOnlyMonths(b);
        return onlyMonths || (!a.hasMonths() && !b.hasMonths());
    }

    private static boolean isOnlyMonths(Span span) {
        return span.days() == 0 && !span.hasClock();
    }

    /** For sorting alone: what is undecidable is put somewhere, NaN and infinite numbers after all others. */
    Comparator<Object> total() {
        return (a, b) -> isDecidable(a, b) ? compare(a, b) : compareUndecidable(a, b);
    }

    private int compareUndecidable(Object a, Object b) {
        if (common == Type.NUMBER) {
            boolean bothOdd = !Numbers.isFinite(a) && !Numbers.isFinite(b);
            return bothOdd
                    ? Double.compare((Double) a, (Double) b)
                    : Boolean.compare(Numbers.isFinite(b), Numbers.isFinite(a));
        }
        return Integer.compare(((Span) a).months(), ((Span) b).months());
    }

    boolean isOfTexts() {
        return common == Type.TEXT;
    }

    /** The value in the form in which it is compared. */
    Object inCommon(Object value) {
        return common == Type.INSTANT ? moments.instant(value) : value;
    }

    int compare(Object a, Object b) {
        return switch (common) {
            case NUMBER -> Numbers.compare(a, b);
            case TEXT -> Texts.compare((String) a, (String) b);
            case TRUTH -> Boolean.compare((Boolean) a, (Boolean) b);
            case DATE -> ((LocalDate) a).compareTo((LocalDate) b);
            case TIME -> ((LocalTime) a).compareTo((LocalTime) b);
            case TIMESTAMP -> moments.timestamp(a).compareTo(moments.timestamp(b));
            case INSTANT -> moments.instant(a).compareTo(moments.instant(b));
            case DURATION -> compareSpans((Span) a, (Span) b);
            case BYTES, NULL -> throw new IllegalStateException("nothing compares as " + common);
        };
    }

    private static int compareSpans(Span a, Span b) {
        return a.hasMonths() || b.hasMonths()
                ? Integer.compare(a.months(), b.months())
                : a.exact().compareTo(b.exact());
    }
}
