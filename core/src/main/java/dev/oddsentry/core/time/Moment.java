package dev.oddsentry.core.time;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;

/** The slot a check stands for, seen in the rule's zone. Everything relative is reckoned from it. */
public record Moment(Instant slot, ZoneId zone) {

    public ZonedDateTime local() {
        return slot.atZone(zone);
    }

    public LocalDate today() {
        return local().toLocalDate();
    }
}
