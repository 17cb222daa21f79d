package dev.oddsentry.service.api.findings;

import dev.oddsentry.service.web.RefusedException;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;

/** Until when a finding is handled, as people write it. */
final class HandlingEnd {
    private HandlingEnd() {}

    /** A bare date is its beginning: what differs is told by the first check of that day. */
    static Instant of(String text, ZoneId zone) {
        try {
            if (text.length() <= "2026-01-01".length())
                return LocalDate.parse(text).atStartOfDay(zone).toInstant();
            if (text.endsWith("Z") || text.matches(".*[+-]\\d\\d:\\d\\d"))
                return OffsetDateTime.parse(text).toInstant();
            return LocalDateTime.parse(text.replace(' ', 'T')).atZone(zone).toInstant();
        } catch (DateTimeException notOne) {
            throw RefusedException.invalid("\"" + text + "\" is not a date. Examples: 2026-06-01, 2026-06-01T09:00");
        }
    }
}
