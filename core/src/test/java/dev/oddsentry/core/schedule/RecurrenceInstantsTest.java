package dev.oddsentry.core.schedule;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Rules finer than a day; the dates are counted by hand from RFC 5545, 3.3.10. */
class RecurrenceInstantsTest {
    private static final ZoneId OSLO = ZoneId.of("Europe/Oslo");
    private static final LocalDateTime MONDAY = LocalDateTime.parse("2026-05-04T00:00");

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // rule | start, local | first three dates, fewer where the rule ends
                "FREQ=HOURLY;BYMINUTE=5,35 | 2026-05-04T08:20 | 2026-05-04T08:35 2026-05-04T09:05 2026-05-04T09:35",
                "FREQ=HOURLY;INTERVAL=2;BYMINUTE=0,30 | 2026-05-04T08:00 | 2026-05-04T08:00 2026-05-04T08:30 2026-05-04T10:00",
                "FREQ=HOURLY;BYSECOND=15 | 2026-05-04T08:10:40 | 2026-05-04T09:10:15 2026-05-04T10:10:15 2026-05-04T11:10:15",
                "FREQ=HOURLY;BYMINUTE=10;BYSECOND=0,20 | 2026-05-04T08:10:10 | 2026-05-04T08:10:20 2026-05-04T09:10 2026-05-04T09:10:20",
                "FREQ=HOURLY;BYMINUTE=10,20,30;BYSETPOS=-1 | 2026-05-04T08:00 | 2026-05-04T08:30 2026-05-04T09:30 2026-05-04T10:30",
                "FREQ=HOURLY;BYHOUR=6,18 | 2026-05-04T08:30 | 2026-05-04T18:30 2026-05-05T06:30 2026-05-05T18:30",
                "FREQ=HOURLY;BYDAY=MO | 2026-05-04T22:15 | 2026-05-04T22:15 2026-05-04T23:15 2026-05-11T00:15",
                "FREQ=HOURLY;INTERVAL=5;BYDAY=TU | 2026-05-04T08:00 | 2026-05-05T04:00 2026-05-05T09:00 2026-05-05T14:00",
                "FREQ=HOURLY;INTERVAL=12;BYMONTH=6 | 2026-05-04T08:00 | 2026-06-01T08:00 2026-06-01T20:00 2026-06-02T08:00",
                "FREQ=HOURLY;COUNT=2 | 2026-05-04T08:00 | 2026-05-04T08:00 2026-05-04T09:00",
                "FREQ=MINUTELY;BYSECOND=0,30 | 2026-05-04T08:00:10 | 2026-05-04T08:00:30 2026-05-04T08:01 2026-05-04T08:01:30",
                "FREQ=MINUTELY;INTERVAL=20;BYHOUR=9,10 | 2026-05-04T08:40 | 2026-05-04T09:00 2026-05-04T09:20 2026-05-04T09:40",
                "FREQ=MINUTELY;INTERVAL=7;BYHOUR=23 | 2026-05-04T08:00 | 2026-05-04T23:03 2026-05-04T23:10 2026-05-04T23:17",
                "FREQ=MINUTELY;INTERVAL=30;UNTIL=20260504T083000 | 2026-05-04T08:00 | 2026-05-04T08:00 2026-05-04T08:30",
                "FREQ=SECONDLY;INTERVAL=45;BYMINUTE=1 | 2026-05-04T08:00 | 2026-05-04T08:01:30 2026-05-04T09:01:30 2026-05-04T10:01:30",
            })
    void givesTheDatesOfTheStandard(String rule, LocalDateTime start, String dates) {
        var expected = Stream.of(dates.split(" "))
                .map(date -> LocalDateTime.parse(date).atZone(OSLO).toInstant())
                .toList();
        var recurrence = Recurrence.of(rule, start, OSLO);
        assertThat(new Schedule(List.of(recurrence), null)
                        .next(3, start.atZone(OSLO).toInstant().minusSeconds(1)))
                .isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({
        "BYSECOND, 60",
        "BYMINUTE, 60",
        "BYHOUR, 24",
        "BYMONTH, 13",
        "BYMONTHDAY, 32",
        "BYMONTHDAY, 0",
        "BYYEARDAY, 367",
        "BYYEARDAY, -367",
        "BYWEEKNO, 54",
        "BYWEEKNO, 0",
        "BYSETPOS, 367",
        "BYSETPOS, 0",
    })
    void numberOutOfRangeIsRefused(String part, String number) {
        String rule = "FREQ=YEARLY;BYDAY=MO;" + part + "=" + number;
        assertThatThrownBy(() -> Recurrence.of(rule, MONDAY, OSLO))
                .isInstanceOf(InvalidDefinitionException.class)
                .hasMessageStartingWith(part + " takes numbers from")
                .hasMessageEndingWith("saw " + number);
    }

    @ParameterizedTest
    @CsvSource({"BYSECOND, 59", "BYMINUTE, 59", "BYHOUR, 23", "BYMONTH, 12", "BYMONTHDAY, -31", "BYSETPOS, -366"})
    void numberAtTheEndOfItsRangeIsTaken(String part, String number) {
        assertThat(Recurrence.of("FREQ=YEARLY;BYDAY=MO;" + part + "=" + number, MONDAY, OSLO))
                .isNotNull();
    }
}
