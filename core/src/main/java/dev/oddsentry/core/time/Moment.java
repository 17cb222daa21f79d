package dev.oddsentry.core.time;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import org.jspecify.annotations.Nullable;

/**
 * The slot a check stands for, seen in the rule's zone and calendar. Everything relative is calculated from it.
 *
 * @param days which days are worked, and when the periods begin
 * @param lastCheck the slot of the last good check, or where the rule says that it starts; null where neither is known
 */
public record Moment(
        Instant slot,
        ZoneId zone,
        WorkingDays days,
        @Nullable Instant lastCheck) {
    public Moment(Instant slot, ZoneId zone, WorkingDays days) {
        this(slot, zone, days, null);
    }

    /** On the usual calendar: Monday to Friday, and months. */
    public Moment(Instant slot, ZoneId zone) {
        this(slot, zone, WorkingDays.MONDAY_TO_FRIDAY);
    }

    public Moment since(@Nullable Instant last) {
        return new Moment(slot, zone, days, last);
    }

    public ZonedDateTime local() {
        return slot.atZone(zone);
    }

    public LocalDate today() {
        return local().toLocalDate();
    }
}
