package dev.oddsentry.core.value;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Exact arithmetic over the three classes of {@link Type#NUMBER}. Whole numbers stay {@link Long} while they fit; a result
 * with NaN or an infinity in it is NaN.
 */
public final class Numbers {
    /** Division keeps 34 significant digits, half even. */
    private static final MathContext QUOTIENT = MathContext.DECIMAL128;

    private static final int READABLE_DIGITS = 3;

    /** No measure has so many; it keeps {@code 1e1000 * 1e1000 * …} from filling the memory. */
    private static final int MOST_DIGITS = 20_000;

    private Numbers() {}

    /** @return empty if the number has more than {@code mostDigits} before or behind its point, or is no number */
    public static Optional<BigDecimal> parse(String text, int mostDigits) {
        if (text.length() > 2 * mostDigits + 20) return Optional.empty();
        try {
            var exact = new BigDecimal(text);
            boolean fits = Math.abs((long) exact.precision() - exact.scale()) <= mostDigits
                    && Math.abs((long) exact.scale()) <= mostDigits;
            return fits ? Optional.of(exact) : Optional.empty();
        } catch (NumberFormatException notOne) {
            return Optional.empty();
        }
    }

    private static void refuseDigits(long digits) {
        if (digits > MOST_DIGITS) throw new ArithmeticException("a number with more than " + MOST_DIGITS + " digits");
    }

    /** Digits that a sum may have: from the first of either to the last of either. */
    private static void refuseSum(BigDecimal a, BigDecimal b) {
        long first = Math.max((long) a.precision() - a.scale(), (long) b.precision() - b.scale());
        long last = Math.max(a.scale(), (long) b.scale());
        refuseDigits(first + last);
    }

    private static Object sum(BigDecimal a, BigDecimal b) {
        refuseSum(a, b);
        return a.add(b);
    }

    private static Object difference(BigDecimal a, BigDecimal b) {
        refuseSum(a, b);
        return a.subtract(b);
    }

    private static Object product(BigDecimal a, BigDecimal b) {
        refuseDigits((long) a.precision() + b.precision());
        refuseDigits(Math.abs((long) a.scale() + b.scale()));
        return a.multiply(b);
    }

    public static boolean isFinite(Object number) {
        return !(number instanceof Double);
    }

    public static BigDecimal decimal(Object number) {
        return number instanceof Long whole ? BigDecimal.valueOf(whole) : (BigDecimal) number;
    }

    /** A floating-point value by its shortest decimal, so that 0.1 read from a database is 0.1; NaN and infinities stay. */
    public static Object ofDouble(double value) {
        return Double.isFinite(value) ? BigDecimal.valueOf(value) : (Object) value;
    }

    public static Object ofFloat(float value) {
        return Float.isFinite(value) ? new BigDecimal(Float.toString(value)) : (Object) (double) value;
    }

    /** Both must be finite. */
    public static int compare(Object a, Object b) {
        if (a instanceof Long left && b instanceof Long right) return Long.compare(left, right);
        return decimal(a).compareTo(decimal(b));
    }

    public static Object add(Object a, Object b) {
        if (a instanceof Long left && b instanceof Long right) {
            long sum = left + right;
            boolean overflowed = ((left ^ sum) & (right ^ sum)) < 0;
            if (!overflowed) return sum;
        }
        return isFinite(a) && isFinite(b) ? sum(decimal(a), decimal(b)) : (Object) Double.NaN;
    }

    public static Object subtract(Object a, Object b) {
        if (a instanceof Long left && b instanceof Long right) {
            long difference = left - right;
            boolean overflowed = ((left ^ right) & (left ^ difference)) < 0;
            if (!overflowed) return difference;
        }
        return isFinite(a) && isFinite(b) ? difference(decimal(a), decimal(b)) : (Object) Double.NaN;
    }

    public static Object multiply(Object a, Object b) {
        if (a instanceof Long left && b instanceof Long right) {
            long high = Math.multiplyHigh(left, right);
            long low = left * right;
            if ((high == 0 && low >= 0) || (high == -1 && low < 0)) return low;
        }
        return isFinite(a) && isFinite(b) ? product(decimal(a), decimal(b)) : (Object) Double.NaN;
    }

    /** @throws ArithmeticException if {@code b} is zero */
    public static Object divide(Object a, Object b) {
        if (!isFinite(a) || !isFinite(b)) return Double.NaN;
        return decimal(a).divide(decimal(b), QUOTIENT);
    }

    public static Object negate(Object a) {
        return subtract(0L, a);
    }

    /**
     * A measured value as people read it: three decimals, or three significant digits where that says more. Anything else stays as it
     * is.
     */
    public static @Nullable Object readable(@Nullable Object value) {
        if (!(value instanceof BigDecimal number) || number.scale() <= READABLE_DIGITS) return value;
        boolean small = number.precision() - number.scale() < 1;
        var rounded = small
                ? number.round(new MathContext(READABLE_DIGITS, RoundingMode.HALF_UP))
                : number.setScale(READABLE_DIGITS, RoundingMode.HALF_UP);
        return rounded.signum() == 0 ? BigDecimal.ZERO : rounded.stripTrailingZeros();
    }
}
