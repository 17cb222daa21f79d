package dev.oddsentry.core.condition;

import dev.oddsentry.core.time.Moment;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;

/**
 * Dates, timestamps and instants brought together at a slot: one without zone is local to the rule's zone. A local time that a clock
 * change skips moves on by the gap, one that occurs twice is the first. Infinities stay infinities.
 */
record Moments(Moment moment) {

    ZoneId zone() {
        return moment.zone();
    }

    LocalDate today() {
        return moment.today();
    }

    Instant slot() {
        return moment.slot();
    }

    Instant instant(Object moment) {
        return switch (moment) {
            case Instant instant -> instant;
            case LocalDateTime local
            when isInfinite(local) -> local.equals(LocalDateTime.MAX) ? Instant.MAX : Instant.MIN;
            case LocalDateTime local -> local.atZone(zone()).toInstant();
            case LocalDate date -> instant(timestamp(date));
            default -> throw new IllegalStateException("no moment: " + moment);
        };
    }

    LocalDateTime timestamp(Object moment) {
        return switch (moment) {
            case LocalDateTime local -> local;
            case LocalDate date when date.equals(LocalDate.MAX) -> LocalDateTime.MAX;
            case LocalDate date -> date.atStartOfDay();
            default -> throw new IllegalStateException("no timestamp: " + moment);
        };
    }

    static boolean isInfinite(Object moment) {
        return switch (moment) {
            case Instant instant -> instant.equals(Instant.MAX) || instant.equals(Instant.MIN);
            case LocalDateTime local -> local.equals(LocalDateTime.MAX) || local.equals(LocalDateTime.MIN);
            case LocalDate date -> date.equals(LocalDate.MAX) || date.equals(LocalDate.MIN);
            default -> false;
        };
    }
}
