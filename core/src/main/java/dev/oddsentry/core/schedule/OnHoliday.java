package dev.oddsentry.core.schedule;

import dev.oddsentry.core.time.WorkingDays;
import java.time.LocalDate;
import java.util.Locale;
import java.util.Optional;

/** What becomes of a slot on a day that is not worked. */
public enum OnHoliday {
    NEXT_WORKING_DAY,
    PREVIOUS_WORKING_DAY,
    SKIP;

    /** The date it moves to; empty where it falls out. */
    Optional<LocalDate> moved(LocalDate date, WorkingDays calendar) {
        if (calendar.isWorkingDay(date)) return Optional.of(date);
        return switch (this) {
            case NEXT_WORKING_DAY -> Optional.of(calendar.onOrAfter(date));
            case PREVIOUS_WORKING_DAY -> Optional.of(calendar.onOrBefore(date));
            case SKIP -> Optional.empty();
        };
    }

    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }
}
