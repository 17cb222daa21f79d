package dev.oddsentry.core.schedule;

import dev.oddsentry.core.schedule.RecurrenceParts.Day;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.time.temporal.WeekFields;
import java.util.List;
import java.util.Set;
import net.fortuna.ical4j.transform.recurrence.Frequency;

/** The dates of a rule of a day or longer: which days of each of its steps are meant. Everything is local. */
final class RecurrenceDays {
    private static final int DAYS_OF_WEEK = 7;

    private final RecurrenceParts parts;
    private final LocalDate start;
    private final WeekFields weekFields;

    RecurrenceDays(RecurrenceParts parts, LocalDate start) {
        this.parts = parts.completedFrom(start);
        this.start = start;
        this.weekFields = WeekFields.of(parts.weekStart(), 4);
    }

    /** The number of the step, from 0, to which the date belongs, or of the last one before it; 0 for dates before the start. */
    long stepOf(LocalDate date) {
        if (!date.isAfter(start)) return 0;
        long units = switch (parts.frequency()) {
            case YEARLY -> date.getYear() - start.getYear();
            case MONTHLY -> ChronoUnit.MONTHS.between(start.withDayOfMonth(1), date.withDayOfMonth(1));
            case WEEKLY -> ChronoUnit.WEEKS.between(weekOf(start), weekOf(date));
            default -> ChronoUnit.DAYS.between(start, date);
        };
        return units / parts.interval();
    }

    private LocalDate weekOf(LocalDate date) {
        return date.with(TemporalAdjusters.previousOrSame(parts.weekStart()));
    }

    LocalDate firstDayOf(long step) {
        long units = step * parts.interval();
        return switch (parts.frequency()) {
            case YEARLY -> LocalDate.of(start.getYear(), 1, 1).plusYears(units);
            case MONTHLY -> start.withDayOfMonth(1).plusMonths(units);
            case WEEKLY -> weekOf(start).plusWeeks(units);
            default -> start.plusDays(units);
        };
    }

    /** In order; those before the start as well, since positions count them. */
    List<LocalDate> of(long step) {
        LocalDate first = firstDayOf(step);
        LocalDate end = switch (parts.frequency()) {
            case YEARLY -> first.plusYears(1);
            case MONTHLY -> first.plusMonths(1);
            case WEEKLY -> first.plusWeeks(1);
            default -> first.plusDays(1);
        };
        return first.datesUntil(end).filter(this::isMeant).toList();
    }

    boolean isMeant(LocalDate date) {
        return (parts.months().isEmpty() || parts.months().contains(date.getMonthValue()))
                && (parts.weeks().isEmpty() || isInWeeks(date))
                && isOneOf(parts.yearDays(), date.getDayOfYear(), date.lengthOfYear())
                && isOneOf(parts.monthDays(), date.getDayOfMonth(), date.lengthOfMonth())
                && (parts.days().isEmpty() || parts.days().stream().anyMatch(day -> isThatDay(day, date)));
    }

    /** Numbers below 0 count from the end. */
    private static boolean isOneOf(Set<Integer> named, int number, int length) {
        return named.isEmpty() || named.contains(number) || named.contains(number - length - 1);
    }

    private boolean isInWeeks(LocalDate date) {
        int week = date.get(weekFields.weekOfWeekBasedYear());
        int weeks = (int) date.range(weekFields.weekOfWeekBasedYear()).getMaximum();
        return isOneOf(parts.weeks(), week, weeks);
    }

    private boolean isThatDay(Day day, LocalDate date) {
        if (day.day() != date.getDayOfWeek()) return false;
        if (day.number() == 0 || !isNumbered()) return true;
        boolean inYear = parts.frequency() == Frequency.YEARLY && parts.months().isEmpty();
        int number = inYear ? date.getDayOfYear() : date.getDayOfMonth();
        int length = inYear ? date.lengthOfYear() : date.lengthOfMonth();
        return day.number() > 0
                ? day.number() == (number - 1) / DAYS_OF_WEEK + 1
                : -day.number() == (length - number) / DAYS_OF_WEEK + 1;
    }

    /** Elsewhere a number of a weekday means nothing. */
    private boolean isNumbered() {
        return parts.frequency() == Frequency.MONTHLY || parts.frequency() == Frequency.YEARLY;
    }
}
