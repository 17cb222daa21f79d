package dev.oddsentry.core.schedule;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * Which days are worked: those of the week, without the holidays, with days that are worked besides.
 *
 * @param week the days of the week that are worked
 * @param holidays dates that are not, with their names
 * @param worked dates that are, whatever the week says
 */
public record WorkingDays(Set<DayOfWeek> week, NavigableMap<LocalDate, String> holidays, Set<LocalDate> worked) {
    /** After so many days without work in a row the calendar is taken to have none. */
    private static final int LONGEST_REST = 60;

    public static final WorkingDays MONDAY_TO_FRIDAY = new WorkingDays(
            Set.of(DayOfWeek.MONDAY, DayOfWeek.TUESDAY, DayOfWeek.WEDNESDAY, DayOfWeek.THURSDAY, DayOfWeek.FRIDAY),
            new TreeMap<>(),
            Set.of());

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
