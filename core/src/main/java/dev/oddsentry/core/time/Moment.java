package dev.oddsentry.core.time;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;

/**
 * The slot a check stands for, seen in the rule's zone and calendar. Everything relative is reckoned from it.
 *
 * @param days which days are worked, and when the periods begin
 */
public record Moment(Instant slot, ZoneId zone, WorkingDays days) {
    /** On the usual calendar: Monday to Friday, and months. */
    public Moment(Instant slot, ZoneId zone) {
        this(slot, zone, WorkingDays.MONDAY_TO_FRIDAY);
    }

    public ZonedDateTime local() {
        return slot.atZone(zone);
    }

    public LocalDate today() {
        return local().toLocalDate();
    }
}
