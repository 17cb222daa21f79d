package dev.oddsentry.service.sources;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;

/** Names of time zones as PostgreSQL takes them. */
final class SessionZone {
    private SessionZone() {}

    /** A region keeps its IANA name. Of an offset the sign is turned round, since the server reads it the way of POSIX. */
    static String name(ZoneId zone) {
        if (!(zone.normalized() instanceof ZoneOffset offset)) return zone.getId();
        if (offset.getTotalSeconds() == 0) return "UTC";
        if (zone.getId().contains("/")) return zone.getId();
        int seconds = zone.getRules().getOffset(Instant.EPOCH).getTotalSeconds();
        int minutes = Math.abs(seconds) / 60;
        return "<" + offset.getId() + ">" + (seconds > 0 ? "-" : "+")
                + String.format("%02d:%02d", minutes / 60, minutes % 60);
    }
}
