package dev.oddsentry.core.schedule;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * The hours of each day in which a source is not asked, such as those of its nightly load.
 *
 * @param from local; the first instant that is closed
 * @param until local, on the next day unless it is later than {@code from}; the first instant that is open again
 */
public record ClosedHours(LocalTime from, LocalTime until, ZoneId zone) {
    public ClosedHours {
        if (from.equals(until))
            throw new IllegalArgumentException("closed from " + from + " to " + until + " is never open");
    }

    private static final Pattern WRITTEN =
            Pattern.compile("\\s*(\\d{1,2}:\\d\\d)\\s*[-–]\\s*(\\d{1,2}:\\d\\d)\\s+(\\S+)\\s*");

    /**
     * @param text such as {@code 22:00-04:30 Europe/Oslo}
     * @throws IllegalArgumentException if it is none, in words
     */
    public static ClosedHours parse(String text) {
        var written = WRITTEN.matcher(text);
        try {
            if (written.matches())
                return new ClosedHours(time(written.group(1)), time(written.group(2)), ZoneId.of(written.group(3)));
        } catch (DateTimeException notOne) {
            // The words below say what would be right.
        }
        throw new IllegalArgumentException(
                "\"" + text + "\" is not a time of day range. Example: 22:00-04:30 Europe/Oslo");
    }

    private static LocalTime time(String text) {
        return LocalTime.parse(text.length() == "4:30".length() ? "0" + text : text);
    }

    /** @return when it opens again; empty if it is open */
    public Optional<Instant> opensAgain(Instant now) {
        var today = now.atZone(zone).toLocalDate();
        for (LocalDate day : new LocalDate[] {today.minusDays(1), today}) {
            Instant begin = day.atTime(from).atZone(zone).toInstant();
            LocalDate last = until.isAfter(from) ? day : day.plusDays(1);
            Instant end = ZonedDateTime.of(last.atTime(until), zone).toInstant();
            if (!now.isBefore(begin) && now.isBefore(end)) return Optional.of(end);
        }
        return Optional.empty();
    }

    @Override
    public String toString() {
        return from + "-" + until + " " + zone;
    }
}
