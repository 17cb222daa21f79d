package dev.oddsentry.core.time;

import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.Period;
import java.time.ZonedDateTime;

/**
 * A length of time as people write it. Months and days follow the calendar and keep the local time; the clock part is exact.
 *
 * @param months whole months, years as twelve; month ends clamp when added
 * @param days whole days, weeks as seven
 * @param clock hours, minutes and seconds
 */
public record Span(int months, int days, Duration clock) {
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
