package dev.oddsentry.core.time;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.TemporalAdjusters;
import org.jspecify.annotations.Nullable;

/**
 * A half-open stretch of time {@code [from, to)} written relative to a slot. For instants and timestamps it runs between
 * instants, for dates between dates.
 */
public sealed interface Window {

    /** {@code last 7 days}: from so long before the slot, up to it. */
    record Last(Span span) implements Window {}

    /** {@code next 30 days}: from the slot, for so long. */
    record Next(Span span) implements Window {}

    /** {@code older than 2 hours}: everything before so long before the slot. */
    record OlderThan(Span span) implements Window {}

    /** {@code this week}, {@code previous month}: a calendar unit, by its distance from the slot's own. */
    record CalendarUnit(int distance, Span.Unit unit) implements Window {}

    /** Bounds between instants; an absent bound is open. */
    record Instants(@Nullable Instant from, Instant to) {
        public boolean contains(Instant instant) {
            return (from == null || !instant.isBefore(from)) && instant.isBefore(to);
        }
    }

    /** Bounds between dates; an absent bound is open. */
    record Dates(@Nullable LocalDate from, LocalDate to) {
        public boolean contains(LocalDate date) {
            return (from == null || !date.isBefore(from)) && date.isBefore(to);
        }
    }

    /** True where the bounds can fall within a day, so that a date cannot be evaluated by them. */
    default boolean needsClock() {
        return switch (this) {
            case Last(var span) -> span.hasClock();
            case Next(var span) -> span.hasClock();
            case OlderThan(var span) -> span.hasClock();
            case CalendarUnit(var _, var unit) -> unit.isClock();
        };
    }

    default Instants instantsAt(Moment moment) {
        ZonedDateTime slot = moment.local();
        return switch (this) {
            case Last(var span) -> new Instants(span.negated().addTo(slot).toInstant(), moment.slot());
            case Next(var span) -> new Instants(moment.slot(), span.addTo(slot).toInstant());
            case OlderThan(var span) ->
                new Instants(null, span.negated().addTo(slot).toInstant());
            case CalendarUnit(int distance, var unit) -> {
                LocalDate start = Span.of(distance, unit).addTo(startOf(unit, moment.today()));
                LocalDate end = Span.of(1, unit).addTo(start);
                yield new Instants(midnight(start, moment.zone()), midnight(end, moment.zone()));
            }
        };
    }

    default Dates datesAt(Moment moment) {
        LocalDate today = moment.today();
        return switch (this) {
            case Last(var span) -> new Dates(span.negated().addTo(today), today);
            case Next(var span) -> new Dates(today, span.addTo(today));
            case OlderThan(var span) -> new Dates(null, span.negated().addTo(today));
            case CalendarUnit(int distance, var unit) -> {
                LocalDate start = Span.of(distance, unit).addTo(startOf(unit, today));
                yield new Dates(start, Span.of(1, unit).addTo(start));
            }
        };
    }

    /** The first date of the calendar unit that {@code date} lies in; weeks start on Monday (ISO 8601). */
    static LocalDate startOf(Span.Unit unit, LocalDate date) {
        return switch (unit) {
            case SECOND, MINUTE, HOUR, DAY -> date;
            case WEEK -> date.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
            case MONTH -> date.withDayOfMonth(1);
            case QUARTER -> date.withDayOfMonth(1).withMonth((date.getMonthValue() - 1) / 3 * 3 + 1);
            case YEAR -> date.withDayOfYear(1);
        };
    }

    private static Instant midnight(LocalDate date, ZoneId zone) {
        return date.atStartOfDay(zone).toInstant();
    }
}
