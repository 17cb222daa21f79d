package dev.oddsentry.core.time;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.Period;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A length of time as people write it. Months and days follow the calendar and keep the local time; the clock part is exact.
 *
 * @param months whole months, years as twelve; month ends clamp when added
 * @param days whole days, weeks as seven
 * @param clock hours, minutes and seconds
 */
public record Span(int months, int days, Duration clock) {
    private static final Pattern ISO = Pattern.compile("P(?:(-?\\d+)M)?(?:(-?\\d+)D)?(T.+)?");

    public static final Span ZERO = new Span(0, 0, Duration.ZERO);

    /** A word of the languages for lengths of time; a plural {@code s} may follow when written. */
    public enum Unit {
        SECOND,
        MINUTE,
        HOUR,
        DAY,
        WEEK,
        MONTH,
        QUARTER,
        YEAR;

        public boolean isClock() {
            return this == SECOND || this == MINUTE || this == HOUR;
        }
    }

    /** @throws ArithmeticException if it is longer than any calendar */
    public static Span of(long amount, Unit unit) {
        return switch (unit) {
            case SECOND -> new Span(0, 0, Duration.ofSeconds(amount));
            case MINUTE -> new Span(0, 0, Duration.ofMinutes(amount));
            case HOUR -> new Span(0, 0, Duration.ofHours(amount));
            case DAY -> new Span(0, Math.toIntExact(amount), Duration.ZERO);
            case WEEK -> new Span(0, Math.multiplyExact(Math.toIntExact(amount), 7), Duration.ZERO);
            case MONTH -> new Span(Math.toIntExact(amount), 0, Duration.ZERO);
            case QUARTER -> new Span(Math.multiplyExact(Math.toIntExact(amount), 3), 0, Duration.ZERO);
            case YEAR -> new Span(Math.multiplyExact(Math.toIntExact(amount), 12), 0, Duration.ZERO);
        };
    }

    public static Span between(Duration clock) {
        return new Span(0, 0, clock);
    }

    /** ISO 8601, such as {@code P1M2DT3H4M5.5S}; each part has its own sign. */
    public String iso() {
        if (months == 0 && days == 0) return clock.toString();
        String dates = (months == 0 ? "" : months + "M") + (days == 0 ? "" : days + "D");
        return "P" + dates + (clock.isZero() ? "" : clock.toString().substring(1));
    }

    /** @throws java.time.DateTimeException if the text is not what {@link #iso} writes */
    public static Span ofIso(String text) {
        var parts = ISO.matcher(text);
        if (!parts.matches()) throw new DateTimeException("\"" + text + "\" is not a duration of ISO 8601");
        return new Span(
                number(parts.group(1)),
                number(parts.group(2)),
                parts.group(3) == null ? Duration.ZERO : Duration.parse("P" + parts.group(3)));
    }

    private static int number(@Nullable String digits) {
        return digits == null ? 0 : Integer.parseInt(digits);
    }

    /** For people: {@code 1 year 2 months 3 days 04:05}; a sign before each part that is below zero. */
    @Override
    public String toString() {
        var words = new ArrayList<String>();
        int years = months / 12;
        if (years != 0) words.add(counted(years, "year"));
        if (months % 12 != 0) words.add(counted(months % 12, "month"));
        if (days != 0) words.add(counted(days, "day"));
        if (hasClock() || words.isEmpty()) words.add(clockText());
        return String.join(" ", words);
    }

    private static String counted(int number, String unit) {
        return number + " " + unit + (Math.abs(number) == 1 ? "" : "s");
    }

    private String clockText() {
        var length = clock.abs();
        String text = "%02d:%02d".formatted(length.toHours(), length.toMinutesPart());
        if (length.toSecondsPart() != 0 || length.toNanosPart() != 0) text += ":%02d".formatted(length.toSecondsPart());
        if (length.toNanosPart() != 0) text += ("." + "%09d".formatted(length.toNanosPart())).replaceAll("0+$", "");
        return (clock.isNegative() ? "-" : "") + text;
    }

    public Span negated() {
        return new Span(Math.negateExact(months), Math.negateExact(days), clock.negated());
    }

    public Span plus(Span other) {
        return new Span(Math.addExact(months, other.months), Math.addExact(days, other.days), clock.plus(other.clock));
    }

    public boolean hasClock() {
        return !clock.isZero();
    }

    public boolean hasMonths() {
        return months != 0;
    }

    /** Days and clock together, a day as 24 hours; months have no such length. */
    public Duration exact() {
        if (hasMonths()) throw new ArithmeticException("months have no fixed length");
        return clock.plusDays(days);
    }

    public LocalDate addTo(LocalDate date) {
        return date.plus(Period.ofMonths(months)).plusDays(days);
    }

    public LocalDateTime addTo(LocalDateTime local) {
        return local.plusMonths(months).plusDays(days).plus(clock);
    }

    /** Months and days keep the local time; one that a clock change repeats is the first, one that it skips moves on by the gap. */
    public ZonedDateTime addTo(ZonedDateTime moment) {
        if (months == 0 && days == 0) return moment.plus(clock);
        var local = moment.toLocalDateTime().plusMonths(months).plusDays(days);
        return local.atZone(moment.getZone()).plus(clock);
    }
}
