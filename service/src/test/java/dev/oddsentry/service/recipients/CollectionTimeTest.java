package dev.oddsentry.service.recipients;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CollectionTimeTest {
    private static CollectionTime time(int hour, String day) {
        return day == null
                ? new CollectionTime(CollectionTime.Every.DAILY, hour, null)
                : new CollectionTime(CollectionTime.Every.WEEKLY, hour, DayOfWeek.valueOf(day));
    }

    @ParameterizedTest
    @CsvSource({
        "2026-12-01T05:59:59Z, 7, , 2026-12-01T06:00:00Z",
        "2026-12-01T06:00:00Z, 7, , 2026-12-02T06:00:00Z",
        "2026-12-01T06:00:00Z, 7, TUESDAY, 2026-12-08T06:00:00Z",
        "2026-12-01T06:00:00Z, 0, MONDAY, 2026-12-06T23:00:00Z",
        // The clock skips 02:00, and has 02:00 twice.
        "2026-03-28T12:00:00Z, 2, , 2026-03-29T01:00:00Z",
        "2026-10-24T12:00:00Z, 2, , 2026-10-25T00:00:00Z",
        "2026-10-25T00:30:00Z, 2, , 2026-10-26T01:00:00Z"
    })
    void isTheNextSuchHour(Instant now, int hour, String day, Instant next) {
        assertThat(time(hour, day).after(now, ZoneId.of("Europe/Oslo"))).isEqualTo(next);
    }

    /** Against a walk from hour to hour, in zones whose clocks change at odd times. */
    @Test
    void isTheFirstThatAWalkFinds() {
        var random = new Random(20261201);
        var zones = new String[] {"Europe/Oslo", "UTC", "Australia/Lord_Howe", "America/St_Johns", "Africa/Casablanca"};
        for (int i = 0; i < 3_000; i++) {
            var zone = ZoneId.of(zones[random.nextInt(zones.length)]);
            var now = Instant.parse("2026-01-01T00:00:00Z").plusSeconds(random.nextInt(366 * 86_400));
            var day = random.nextBoolean() ? null : DayOfWeek.of(1 + random.nextInt(7));
            var time = time(random.nextInt(24), day == null ? null : day.name());
            assertThat(time.after(now, zone)).as("%s %s %s", now, zone, time).isEqualTo(walked(time, now, zone));
        }
    }

    private static Instant walked(CollectionTime time, Instant now, ZoneId zone) {
        for (var date = now.atZone(zone).toLocalDate(); ; date = date.plusDays(1)) {
            if (time.day() != null && date.getDayOfWeek() != time.day()) continue;
            // The first moment of the day whose clock shows that hour, or a later one.
            var moment = date.atStartOfDay(zone).toInstant();
            while (moment.atZone(zone).toLocalDate().equals(date)
                    && moment.atZone(zone).toLocalTime().isBefore(LocalTime.of(time.hour(), 0)))
                moment = moment.plus(Duration.ofMinutes(15));
            if (moment.isAfter(now)) return moment;
        }
    }
}
