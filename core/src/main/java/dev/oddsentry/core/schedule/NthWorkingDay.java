package dev.oddsentry.core.schedule;

import dev.oddsentry.core.time.WorkingDays;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.YearMonth;
import java.time.ZoneId;
import java.util.Optional;

/**
 * One slot a month, on its third working day or its last, at the local time of the start.
 *
 * @param number from 1 for the first, from -1 for the last
 */
record NthWorkingDay(int number, WorkingDays calendar, LocalDateTime start, ZoneId zone) implements Slots {
    private static final int MOST_MONTHS_WITHOUT = 24;

    @Override
    public Optional<Instant> nextAfter(Instant after) {
        YearMonth month = YearMonth.from(after.atZone(zone));
        if (month.isBefore(YearMonth.from(start))) month = YearMonth.from(start);
        for (int i = 0; i < MOST_MONTHS_WITHOUT; i++, month = month.plusMonths(1)) {
            var slot = calendar.nthOf(month, number)
                    .map(date -> date.atTime(start.toLocalTime()))
                    .filter(local -> !local.isBefore(start))
                    .map(local -> local.atZone(zone).toInstant())
                    .filter(instant -> instant.isAfter(after));
            if (slot.isPresent()) return slot;
        }
        return Optional.empty();
    }
}
