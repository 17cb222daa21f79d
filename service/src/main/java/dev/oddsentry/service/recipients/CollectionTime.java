package dev.oddsentry.service.recipients;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.TemporalAdjusters;
import org.jspecify.annotations.Nullable;

/**
 * When a recipient gets in one message what came meanwhile.
 *
 * @param hour from 0 to 23; where the clock skips it, the first time after it
 * @param day null for a daily collection
 */
public record CollectionTime(
        Every every, int hour, @Nullable DayOfWeek day) {
    /** A morning hour, as which a pause ends, too. */
    public static final int USUAL_HOUR = 7;

    public enum Every {
        DAILY,
        WEEKLY
    }

    /** The first one after {@code now}. */
    public Instant after(Instant now, ZoneId zone) {
        var today = now.atZone(zone).toLocalDate();
        var first = day == null ? today : today.with(TemporalAdjusters.nextOrSame(day));
        var time = LocalTime.of(hour, 0);
        var next = first.atTime(time).atZone(zone).toInstant();
        int step = day == null ? 1 : 7;
        return next.isAfter(now)
                ? next
                : first.plusDays(step).atTime(time).atZone(zone).toInstant();
    }
}
