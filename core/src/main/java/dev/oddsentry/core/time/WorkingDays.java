package dev.oddsentry.core.time;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.List;
import java.util.NavigableMap;
import java.util.NavigableSet;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/**
 * Which days are worked: those of the week, without the holidays, with days that are worked besides.
 *
 * @param week the days of the week that are worked
 * @param holidays dates that are not, with their names
 * @param worked dates that are, whatever the week says
 * @param periods the first days of the periods by which the books are kept, such as 4-4-5 weeks; empty where they are the months
 */
public record WorkingDays(
        Set<DayOfWeek> week,
        NavigableMap<LocalDate, String> holidays,
        Set<LocalDate> worked,
        NavigableSet<LocalDate> periods) {
    /** After so many days without work in a row the calendar is taken to have none. */
    private static final int LONGEST_REST = 60;

    public static final WorkingDays MONDAY_TO_FRIDAY = new WorkingDays(
            Set.of(DayOfWeek.MONDAY, DayOfWeek.TUESDAY, DayOfWeek.WEDNESDAY, DayOfWeek.THURSDAY, DayOfWeek.FRIDAY),
            new TreeMap<>(),
            Set.of(),
            new TreeSet<>());

    public WorkingDays(Set<DayOfWeek> week, NavigableMap<LocalDate, String> holidays, Set<LocalDate> worked) {
        this(week, holidays, worked, new TreeSet<>());
    }

    /**
     * The first day of the period that holds the date, or of one that is so many periods away from it.
     *
     * @throws InvalidDefinitionException if the calendar does not say when that one begins
     */
    public LocalDate startOfPeriod(LocalDate date, int distance) {
        if (periods.isEmpty()) return date.withDayOfMonth(1).plusMonths(distance);
        LocalDate start = periods.floor(date);
        // It is unknown whether a date after the last start is still of that period, so the next one must be named.
        boolean known = start != null && periods.higher(start) != null;
        for (int i = 0; known && start != null && i != distance; i += Integer.signum(distance))
            start = distance > 0 ? periods.higher(start) : periods.lower(start);
        if (known && start != null) return start;
        throw new InvalidDefinitionException(List.of(Problem.error(
                "the calendar names no period " + (distance == 0 ? "" : distance + " from the one ") + "of " + date
                        + "; its periods go from " + periods.first() + " to " + periods.last(),
                "",
                null)));
    }

    public boolean isWorkingDay(LocalDate date) {
        return worked.contains(date) || (week.contains(date.getDayOfWeek()) && !holidays.containsKey(date));
    }

    /** The date itself if it is worked, else the next that is. */
    public LocalDate onOrAfter(LocalDate date) {
        return seek(date, 1);
    }

    public LocalDate onOrBefore(LocalDate date) {
        return seek(date, -1);
    }

    private LocalDate seek(LocalDate date, int step) {
        LocalDate found = date;
        for (int i = 0; i < LONGEST_REST; i++, found = found.plusDays(step)) {
            if (isWorkingDay(found)) return found;
        }
        throw new IllegalStateException("no working day within " + LONGEST_REST + " days of " + date);
    }

    /** So many working days further, or back where {@code days} is negative; 0 gives the date itself. */
    public LocalDate plus(LocalDate date, int days) {
        LocalDate at = date;
        int step = Integer.signum(days);
        for (int i = 0; i != days; i += step) at = seek(at.plusDays(step), step);
        return at;
    }

    /** @param number from 1 for the first, or from -1 for the last backwards; empty if the month has not so many */
    public Optional<LocalDate> nthOf(YearMonth month, int number) {
        LocalDate at = number > 0 ? month.atDay(1) : month.atEndOfMonth();
        int step = Integer.signum(number);
        int left = Math.abs(number);
        for (; YearMonth.from(at).equals(month); at = at.plusDays(step)) {
            if (isWorkingDay(at) && --left == 0) return Optional.of(at);
        }
        return Optional.empty();
    }

    /** The last date that anyone entered; after it only the week is known. Null where none was. */
    public @Nullable LocalDate lastKnown() {
        LocalDate last = holidays.isEmpty() ? null : holidays.lastKey();
        for (LocalDate date : worked) if (last == null || date.isAfter(last)) last = date;
        return last;
    }
}
