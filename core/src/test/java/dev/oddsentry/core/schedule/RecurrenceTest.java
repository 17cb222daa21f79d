package dev.oddsentry.core.schedule;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.Seeded;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class RecurrenceTest {

    /** Examples of RFC 5545, 3.8.5.3, from a start in New York, and the clock-change rules of section 3.3.10. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // rule | local start | zone | first dates, local
                "FREQ=DAILY;COUNT=3 | 1997-09-02T09:00 | America/New_York | 1997-09-02T09:00 1997-09-03T09:00 1997-09-04T09:00",
                "FREQ=DAILY;INTERVAL=2 | 1997-10-24T09:00 | America/New_York | 1997-10-24T09:00 1997-10-26T09:00 1997-10-28T09:00",
                "FREQ=WEEKLY;INTERVAL=2;WKST=SU | 1997-09-02T09:00 | America/New_York | 1997-09-02T09:00 1997-09-16T09:00 1997-09-30T09:00",
                "FREQ=MONTHLY;COUNT=3;BYDAY=1FR | 1997-09-05T09:00 | America/New_York | 1997-09-05T09:00 1997-10-03T09:00 1997-11-07T09:00",
                "FREQ=MONTHLY;BYDAY=-2MO | 1997-09-22T09:00 | America/New_York | 1997-09-22T09:00 1997-10-20T09:00 1997-11-17T09:00",
                "FREQ=MONTHLY;BYMONTHDAY=-3 | 1997-09-28T09:00 | America/New_York | 1997-09-28T09:00 1997-10-29T09:00 1997-11-28T09:00",
                "FREQ=MONTHLY;BYMONTHDAY=13;BYDAY=FR | 1997-09-02T09:00 | America/New_York | 1998-02-13T09:00 1998-03-13T09:00 1998-11-13T09:00",
                "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=3 | 2026-01-01T06:30 | Europe/Oslo | 2026-01-05T06:30 2026-02-04T06:30 2026-03-04T06:30",
                // The first week of a year may begin in December, whichever way it is counted.
                "FREQ=YEARLY;BYWEEKNO=1;BYDAY=TU | 2024-12-02T09:00 | Europe/Oslo | 2024-12-31T09:00 2025-12-30T09:00 2027-01-05T09:00",
                "FREQ=YEARLY;BYWEEKNO=-52;BYDAY=TU | 2024-12-02T09:00 | Europe/Oslo | 2024-12-31T09:00 2026-01-06T09:00 2027-01-05T09:00",
                "FREQ=YEARLY;BYDAY=20MO | 1997-05-19T09:00 | America/New_York | 1997-05-19T09:00 1998-05-18T09:00 1999-05-17T09:00",
                "FREQ=DAILY | 2026-03-28T02:30 | Europe/Oslo | 2026-03-28T02:30 2026-03-29T03:30 2026-03-30T02:30",
                "FREQ=DAILY | 2026-10-24T02:30 | Europe/Oslo | 2026-10-24T02:30 2026-10-25T02:30 2026-10-26T02:30",
                "FREQ=HOURLY | 2026-03-29T01:15 | Europe/Oslo | 2026-03-29T01:15 2026-03-29T03:15 2026-03-29T04:15",
                "FREQ=MINUTELY;INTERVAL=90 | 1997-09-02T09:00 | America/New_York | 1997-09-02T09:00 1997-09-02T10:30 1997-09-02T12:00",
            })
    void givesTheDatesOfTheStandard(String rule, LocalDateTime start, String zone, String dates) {
        var recurrence = Recurrence.of(rule, start, ZoneId.of(zone));
        var expected = Stream.of(dates.split(" "))
                .map(date -> LocalDateTime.parse(date).atZone(ZoneId.of(zone)).toInstant())
                .toList();
        Instant before = start.atZone(ZoneId.of(zone)).toInstant().minusSeconds(1);
        assertThat(new Schedule(List.of(recurrence), null).next(3, before)).isEqualTo(expected);
    }

    @Test
    void anHourlyRuleNeitherSkipsNorRepeatsAnInstantWhenClocksGoBack() {
        var hourly = Recurrence.of("FREQ=HOURLY", LocalDateTime.parse("2026-10-25T00:15"), ZoneId.of("Europe/Oslo"));
        var next = new Schedule(List.of(hourly), null).next(6, Instant.parse("2026-10-24T22:00:00Z"));
        for (int i = 1; i < next.size(); i++)
            assertThat(Duration.between(next.get(i - 1), next.get(i))).isEqualTo(Duration.ofHours(1));
    }

    /** A start near the instant asked for gives the same dates as walking from the rule's own. */
    @Test
    void askingLateGivesTheSameDatesAsWalkingFromTheStart() {
        var rules = List.of(
                "FREQ=MINUTELY;INTERVAL=7",
                "FREQ=HOURLY;INTERVAL=5",
                "FREQ=DAILY;INTERVAL=3",
                "FREQ=WEEKLY;INTERVAL=3;BYDAY=MO,TH",
                "FREQ=MONTHLY;BYDAY=2TH",
                "FREQ=DAILY;BYHOUR=6,18");
        var zones = List.of("Europe/Oslo", "America/New_York", "Australia/Lord_Howe", "UTC");
        Seeded.cases(60, random -> {
            var zone = ZoneId.of(zones.get(random.nextInt(zones.size())));
            var recurrence = Recurrence.of(
                    rules.get(random.nextInt(rules.size())), LocalDateTime.parse("2026-03-01T05:40"), zone);
            Instant asked = Instant.parse("2026-03-10T00:00:00Z").plusSeconds(random.nextInt(60 * 86_400));
            Instant walked = Instant.parse("2026-03-01T00:00:00Z");
            while (!walked.isAfter(asked)) walked = recurrence.nextAfter(walked).orElseThrow();
            assertThat(recurrence.nextAfter(asked)).contains(walked);
        });
    }

    @Test
    void endsWithItsCountWithUntilAndWithADayThatNeverComes() {
        var zone = ZoneId.of("UTC");
        var start = LocalDateTime.parse("2026-01-01T00:00");
        assertThat(Recurrence.of("FREQ=DAILY;COUNT=2", start, zone).nextAfter(Instant.parse("2026-01-02T00:00:00Z")))
                .isEmpty();
        assertThat(Recurrence.of("FREQ=DAILY;UNTIL=20260102T000000Z", start, zone)
                        .nextAfter(Instant.parse("2026-01-02T00:00:00Z")))
                .isEmpty();
        assertThat(Recurrence.of("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30", start, zone)
                        .nextAfter(Instant.parse("2026-01-02T00:00:00Z")))
                .isEmpty();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "daily",
                "FREQ=SOMETIMES",
                "FREQ=DAILY;EVERY=2",
                "FREQ=DAILY;FREQ=WEEKLY",
                "FREQ=DAILY;COUNT=2;UNTIL=20260102T000000Z",
                "INTERVAL=2",
                "FREQ=DAILY;BYDAY=XX",
                "FREQ=DAILY;INTERVAL=0"
            })
    void refusesWhatIsNoRule(String rule) {
        assertThatThrownBy(() -> Recurrence.of(rule, LocalDateTime.parse("2026-01-01T00:00"), ZoneId.of("UTC")))
                .isInstanceOf(InvalidDefinitionException.class);
    }

    @Test
    void theLatestOfSeveralMissedSlotsStandsForAllOfThem() {
        var daily = new Schedule(
                List.of(Recurrence.of("FREQ=DAILY", LocalDateTime.parse("2026-01-01T06:00"), ZoneId.of("UTC"))), null);
        var due = daily.due(Instant.parse("2026-01-02T06:00:00Z"), Instant.parse("2026-01-05T07:00:00Z"));
        assertThat(due.latest()).isEqualTo("2026-01-05T06:00:00Z");
        assertThat(due.slots()).isEqualTo(4);
        assertThat(due.next()).contains(Instant.parse("2026-01-06T06:00:00Z"));
    }

    /** A start that was moved back in the rhythm of the rule gives the same dates afterwards, and others before. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "FREQ=DAILY;INTERVAL=3",
                "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,FR",
                "FREQ=MONTHLY;INTERVAL=5",
                "FREQ=YEARLY",
                "FREQ=HOURLY;INTERVAL=7",
                "FREQ=MINUTELY;INTERVAL=25"
            })
    void anEarlierStartKeepsTheRhythm(String rule) {
        var zone = ZoneId.of("Europe/Oslo");
        var start = LocalDateTime.parse("2026-05-29T05:40");
        var by = LocalDateTime.parse("2025-02-11T00:00");
        var earlier = Recurrence.sameRhythmBy(rule, start, by, zone);
        assertThat(earlier).isBeforeOrEqualTo(by.plusHours(1));
        Instant after = start.atZone(zone).toInstant().minusSeconds(1);
        assertThat(new Schedule(List.of(Recurrence.of(rule, earlier, zone)), null).next(20, after))
                .isEqualTo(new Schedule(List.of(Recurrence.of(rule, start, zone)), null).next(20, after));
    }
}
