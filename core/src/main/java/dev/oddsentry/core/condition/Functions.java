package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Function.Body;
import dev.oddsentry.core.condition.Function.Kind;
import dev.oddsentry.core.condition.Function.Signature;
import dev.oddsentry.core.value.Numbers;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * The functions of the language, by name. {@code coalesce} and {@code nullif} are not among them: they take any type and do not
 * evaluate all their arguments, so the type checker and the compiler know them.
 */
final class Functions {
    static final String COALESCE = "coalesce";
    static final String NULLIF = "nullif";
    static final String TODAY = "today";
    static final String NOW = "now";
    static final Set<String> LOOKING_AT_THE_SLOT = Set.of(TODAY, NOW);
    private static final int MOST_DECIMALS = 1000;

    private static final Map<String, Function> BY_NAME = new LinkedHashMap<>();

    static {
        number("abs", "without its sign", BigDecimal::abs);
        add(
                "round",
                "to the nearest whole number, or to N decimals; half away from zero",
                signature(Type.NUMBER, (arguments, _) -> round(arguments[0], 0), Kind.NUMBER),
                signature(
                        Type.NUMBER,
                        (arguments, _) -> round(arguments[0], decimals(arguments[1])),
                        Kind.NUMBER,
                        Kind.NUMBER));
        number("floor", "the next whole number down", value -> value.setScale(0, RoundingMode.FLOOR));
        number("ceil", "the next whole number up", value -> value.setScale(0, RoundingMode.CEILING));
        add(
                "div",
                "how often the second goes whole into the first",
                signature(
                        Type.NUMBER,
                        (arguments, _) -> Numbers.decimal(arguments[0]).divideToIntegralValue(divisor(arguments[1])),
                        Kind.NUMBER,
                        Kind.NUMBER));
        add(
                "mod",
                "what is left of that, with the sign of the first",
                signature(
                        Type.NUMBER,
                        (arguments, _) -> Numbers.decimal(arguments[0]).remainder(divisor(arguments[1])),
                        Kind.NUMBER,
                        Kind.NUMBER));
        text("lower", "in lower case", value -> value.toLowerCase(Locale.ROOT));
        text("upper", "in capitals", value -> value.toUpperCase(Locale.ROOT));
        text("trim", "without spaces at its ends", value -> value.replaceAll("^ +| +$", ""));
        add(
                "length",
                "how many characters",
                signature(
                        Type.NUMBER,
                        (arguments, _) -> (long) text(arguments[0])
                                .codePointCount(0, text(arguments[0]).length()),
                        Kind.TEXT));
        add(
                "number",
                "a text as the number it says",
                signature(Type.NUMBER, (arguments, _) -> parse(text(arguments[0])), Kind.TEXT));
        add(TODAY, "the slot's date in the rule's zone", signature(Type.DATE, (_, moments) -> moments.today()));
        add(NOW, "the slot", signature(Type.INSTANT, (_, moments) -> moments.slot()));
        add(
                "days_between",
                "calendar days from the first to the second, in the rule's zone",
                signature(
                        Type.NUMBER,
                        (arguments, moments) -> days(arguments[0], arguments[1], moments),
                        Kind.MOMENT,
                        Kind.MOMENT));
        add(
                "hours_between",
                "hours from the first to the second, with decimals",
                signature(
                        Type.NUMBER,
                        (arguments, moments) -> elapsed(arguments, moments, Duration.ofHours(1)),
                        Kind.MOMENT,
                        Kind.MOMENT));
        add(
                "minutes_between",
                "minutes from the first to the second, with decimals",
                signature(
                        Type.NUMBER,
                        (arguments, moments) -> elapsed(arguments, moments, Duration.ofMinutes(1)),
                        Kind.MOMENT,
                        Kind.MOMENT));
    }

    private Functions() {}

    static Map<String, Function> byName() {
        return BY_NAME;
    }

    static boolean isKnown(String name) {
        return BY_NAME.containsKey(name) || name.equals(COALESCE) || name.equals(NULLIF);
    }

    private static void number(String name, String meaning, UnaryOperator<BigDecimal> body) {
        add(
                name,
                meaning,
                signature(Type.NUMBER, (arguments, _) -> body.apply(Numbers.decimal(arguments[0])), Kind.NUMBER));
    }

    private static void text(String name, String meaning, UnaryOperator<String> body) {
        add(name, meaning, signature(Type.TEXT, (arguments, _) -> body.apply(text(arguments[0])), Kind.TEXT));
    }

    private static void add(String name, String meaning, Signature... signatures) {
        BY_NAME.put(name, new Function(name, List.of(signatures), meaning));
    }

    private static Signature signature(Type result, Body body, Kind... parameters) {
        return new Signature(List.of(parameters), result, body);
    }

    private static String text(Object value) {
        return (String) value;
    }

    private static BigDecimal round(Object value, int decimals) {
        return Numbers.decimal(value).setScale(decimals, RoundingMode.HALF_UP);
    }

    private static int decimals(Object value) {
        var decimals = Numbers.decimal(value);
        if (decimals.abs().compareTo(BigDecimal.valueOf(MOST_DECIMALS)) > 0)
            throw new ArithmeticException("more than " + MOST_DECIMALS + " decimals");
        return decimals.setScale(0, RoundingMode.HALF_UP).intValueExact();
    }

    private static BigDecimal divisor(Object value) {
        var divisor = Numbers.decimal(value);
        if (divisor.signum() == 0) throw new ArithmeticException("division by zero");
        return divisor;
    }

    private static BigDecimal parse(String text) {
        String bare = text.strip();
        boolean plain =
                bare.length() <= MOST_DECIMALS && bare.matches("[+-]?(\\d+\\.?\\d*|\\.\\d+)([eE][+-]?\\d{1,3})?");
        if (!plain) throw new ArithmeticException("'" + text + "' is not a number");
        return new BigDecimal(bare);
    }

    private static @Nullable Long days(Object from, Object to, Moments moments) {
        if (Moments.isInfinite(from) || Moments.isInfinite(to)) return null;
        return ChronoUnit.DAYS.between(date(from, moments), date(to, moments));
    }

    private static LocalDate date(Object moment, Moments moments) {
        return moment instanceof Instant instant
                ? instant.atZone(moments.zone()).toLocalDate()
                : moments.timestamp(moment).toLocalDate();
    }

    private static @Nullable BigDecimal elapsed(Object[] arguments, Moments moments, Duration unit) {
        Object from = arguments[0];
        Object to = arguments[1];
        if (Moments.isInfinite(from) || Moments.isInfinite(to)) return null;
        boolean exact = from instanceof Instant || to instanceof Instant;
        Duration elapsed = exact
                ? Duration.between(moments.instant(from), moments.instant(to))
                : Duration.between(moments.timestamp(from), moments.timestamp(to));
        var seconds = BigDecimal.valueOf(elapsed.getSeconds()).add(BigDecimal.valueOf(elapsed.getNano(), 9));
        return seconds.divide(BigDecimal.valueOf(unit.toSeconds()), MathContext.DECIMAL128);
    }
}
