package dev.oddsentry.core.schedule;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.Seeded;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.time.WorkingDays;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.YearMonth;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ScheduleTest {
    private static final ZoneId OSLO = ZoneId.of("Europe/Oslo");
    /** Monday to Friday, Constitution Day and Whit Monday off, and a Saturday that is worked. */
    private static final WorkingDays NORWAY = new WorkingDays(
            WorkingDays.MONDAY_TO_FRIDAY.week(),
            new TreeMap<>(Map.of(
                    LocalDate.parse("2027-05-17"), "Constitution Day", LocalDate.parse("2027-05-18"), "Whit Tuesday")),
            Set.of(LocalDate.parse("2027-05-22")));

    private static Schedule.Parts parts(List<String> recur) {
        return new Schedule.Parts(
                LocalDateTime.parse("2027-05-01T05:40"),
                OSLO,
                recur,
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                null,
                NORWAY,
                null);
    }

    private static Schedule on(String recur, @Nullable OnHoliday how) {
        var parts = parts(List.of(recur));
        return Schedule.of(new Schedule.Parts(
                parts.start(), OSLO, parts.recur(), List.of(), List.of(), List.of(), List.of(), null, NORWAY, how));
    }

    private static List<String> local(List<Instant> slots) {
        return slots.stream()
                .map(slot -> slot.atZone(OSLO).toLocalDateTime().toString())
                .toList();
    }

    @Test
    void severalRecurrencesSingleDatesAndExceptionsAreOneSchedule() {
        var schedule = Schedule.of(new Schedule.Parts(
                LocalDateTime.parse("2027-05-03T05:40"),
                OSLO,
                List.of("FREQ=WEEKLY;BYDAY=MO", "FREQ=WEEKLY;BYDAY=MO,WE"),
                List.of(),
                List.of(LocalDateTime.parse("2027-05-04T12:00")),
                List.of(LocalDateTime.parse("2027-05-05T05:40")),
                List.of(LocalDate.parse("2027-05-12")),
                LocalDateTime.parse("2027-05-19T05:40"),
                null,
                null));
        assertThat(local(schedule.next(9, Instant.parse("2027-01-01T00:00:00Z"))))
                .containsExactly(
                        "2027-05-03T05:40",
                        "2027-05-04T12:00",
                        "2027-05-10T05:40",
                        "2027-05-17T05:40",
                        "2027-05-19T05:40");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "                     | 2027-05-16T05:40 2027-05-17T05:40 2027-05-18T05:40 2027-05-19T05:40",
                "NEXT_WORKING_DAY     | 2027-05-19T05:40 2027-05-20T05:40 2027-05-21T05:40 2027-05-22T05:40",
                "PREVIOUS_WORKING_DAY | 2027-05-19T05:40 2027-05-20T05:40 2027-05-21T05:40 2027-05-22T05:40",
                "SKIP                 | 2027-05-19T05:40 2027-05-20T05:40 2027-05-21T05:40 2027-05-22T05:40",
            })
    void ofADailyRuleSlotsThatMeetAreOne(@Nullable OnHoliday how, String dates) {
        assertThat(local(on("FREQ=DAILY", how).next(4, Instant.parse("2027-05-15T12:00:00Z"))))
                .containsExactly(dates.split(" "));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "FREQ=MONTHLY;BYMONTHDAY=17 | NEXT_WORKING_DAY     | 2027-05-19T05:40 2027-06-17T05:40 2027-07-19T05:40",
                "FREQ=MONTHLY;BYMONTHDAY=17 | PREVIOUS_WORKING_DAY | 2027-05-14T05:40 2027-06-17T05:40 2027-07-16T05:40",
                "FREQ=MONTHLY;BYMONTHDAY=17 | SKIP                 | 2027-06-17T05:40 2027-08-17T05:40 2027-09-17T05:40",
                "FREQ=MONTHLY;BYMONTHDAY=-1 | PREVIOUS_WORKING_DAY | 2027-05-31T05:40 2027-06-30T05:40 2027-07-30T05:40",
            })
    void aSlotOnAHolidayMovesAndKeepsItsLocalTime(String rule, OnHoliday how, String dates) {
        assertThat(local(on(rule, how).next(3, Instant.parse("2027-05-02T00:00:00Z"))))
                .containsExactly(dates.split(" "));
    }

    @Test
    void theThirdAndTheLastWorkingDayOfAMonth() {
        var schedule = Schedule.of(new Schedule.Parts(
                LocalDateTime.parse("2027-05-04T06:30"),
                OSLO,
                List.of(),
                List.of(3, -1),
                List.of(),
                List.of(),
                List.of(),
                null,
                NORWAY,
                null));
        assertThat(local(schedule.next(4, Instant.parse("2027-05-01T00:00:00Z"))))
                .containsExactly("2027-05-05T06:30", "2027-05-31T06:30", "2027-06-03T06:30", "2027-06-30T06:30");
        assertThat(NORWAY.nthOf(YearMonth.of(2027, 5), 25)).isEmpty();
    }

    /** What moves is what a person would get who moves each planned slot by hand, sorts them, and drops doubles. */
    @Test
    void movingOneByOneGivesTheSameAsMovingAll() {
        Seeded.cases(200, random -> {
            var rules = List.of(
                    "FREQ=DAILY;BYHOUR=5,17",
                    "FREQ=WEEKLY;BYDAY=SA,MO,TH",
                    "FREQ=MONTHLY;BYMONTHDAY=1,15,17,18,-1",
                    "FREQ=HOURLY;INTERVAL=7");
            var calendar = calendar(random);
            var how = OnHoliday.values()[random.nextInt(3)];
            var start = LocalDateTime.parse("2027-03-01T05:40");
            var rule = List.of(rules.get(random.nextInt(rules.size())));
            var planned = Schedule.of(new Schedule.Parts(
                    start, OSLO, rule, List.of(), List.of(), List.of(), List.of(), null, calendar, null));
            var moving = Schedule.of(new Schedule.Parts(
                    start, OSLO, rule, List.of(), List.of(), List.of(), List.of(), null, calendar, how));
            var byHand = new TreeSet<Instant>();
            for (Instant slot : planned.next(120, Instant.EPOCH)) {
                var there = slot.atZone(OSLO);
                moved(there.toLocalDate(), how, calendar)
                        .ifPresent(date -> byHand.add(
                                date.atTime(there.toLocalTime()).atZone(OSLO).toInstant()));
            }
            var expected = new ArrayList<>(byHand).subList(0, Math.min(30, byHand.size()));
            assertThat(moving.next(30, Instant.parse("2027-02-01T00:00:00Z")).subList(0, expected.size()))
                    .isEqualTo(expected);
        });
    }

    private static Optional<LocalDate> moved(LocalDate date, OnHoliday how, WorkingDays calendar) {
        LocalDate at = date;
        while (!calendar.isWorkingDay(at)) {
            if (how == OnHoliday.SKIP) return Optional.empty();
            at = at.plusDays(how == OnHoliday.NEXT_WORKING_DAY ? 1 : -1);
        }
        return Optional.of(at);
    }

    private static WorkingDays calendar(Random random) {
        var holidays = new TreeMap<LocalDate, String>();
        for (int i = 0; i < 12; i++) holidays.put(LocalDate.parse("2027-02-25").plusDays(random.nextInt(60)), "off");
        return new WorkingDays(
                Set.of(DayOfWeek.MONDAY, DayOfWeek.TUESDAY, DayOfWeek.THURSDAY, DayOfWeek.SUNDAY), holidays, Set.of());
    }

    @Test
    void workingDaysAreCountedOverHolidays() {
        LocalDate friday = LocalDate.parse("2027-05-14");
        assertThat(NORWAY.plus(friday, 1)).isEqualTo("2027-05-19");
        assertThat(NORWAY.plus(LocalDate.parse("2027-05-19"), -1)).isEqualTo(friday);
        assertThat(NORWAY.plus(LocalDate.parse("2027-05-15"), 0)).isEqualTo("2027-05-15");
        assertThat(NORWAY.lastKnown()).isEqualTo("2027-05-22");
    }

    @Test
    void holidaysAreReadFromAnICalendarFile() {
        String file = """
                BEGIN:VCALENDAR
                VERSION:2.0
                PRODID:-//Skerry Line//Holidays//EN
                BEGIN:VEVENT
                UID:1@skerryline.example
                DTSTAMP:20260101T000000Z
                DTSTART;VALUE=DATE:20260517
                RRULE:FREQ=YEARLY
                SUMMARY:Constitution Day
                END:VEVENT
                BEGIN:VEVENT
                UID:2@skerryline.example
                DTSTAMP:20260101T000000Z
                DTSTART;VALUE=DATE:20261224
                DTEND;VALUE=DATE:20261227
                SUMMARY:Jul på Holm
                END:VEVENT
                BEGIN:VEVENT
                UID:3@skerryline.example
                DTSTAMP:20260101T000000Z
                DTSTART:20261224T100000Z
                SUMMARY:a meeting
                END:VEVENT
                END:VCALENDAR
                """.replace("\n", "\r\n");
        assertThat(CalendarFile.holidays(file, LocalDate.parse("2028-12-31")))
                .containsOnlyKeys(
                        LocalDate.parse("2026-05-17"),
                        LocalDate.parse("2026-12-24"),
                        LocalDate.parse("2026-12-25"),
                        LocalDate.parse("2026-12-26"),
                        LocalDate.parse("2027-05-17"),
                        LocalDate.parse("2028-05-17"))
                .containsEntry(LocalDate.parse("2026-12-25"), "Jul på Holm");
        assertThatThrownBy(() -> CalendarFile.holidays("BEGIN:VCALENDAR", LocalDate.MAX))
                .isInstanceOf(InvalidDefinitionException.class)
                .hasMessageContaining("not a readable iCalendar file");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "FREQ=DAILY | every day at 05:40",
                "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR | Monday to Friday at 05:40",
                "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,TH | every 2 weeks on Monday and Thursday at 05:40",
                "FREQ=WEEKLY | every week on Saturday at 05:40",
                "FREQ=MONTHLY | every month on the 1st at 05:40",
                "FREQ=MONTHLY;BYDAY=2TU,-1FR | every month on the 2nd Tuesday and the last Friday at 05:40",
                "FREQ=MONTHLY;BYMONTHDAY=-1;COUNT=3 | every month on the last day at 05:40, 3 times",
                "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2 | every month on Monday, Tuesday, Wednesday, Thursday and Friday, of these the 2nd last at 05:40",
                "FREQ=YEARLY;BYMONTH=5;BYMONTHDAY=17 | every year on the 17th in May at 05:40",
                "FREQ=YEARLY | every year on 1 May at 05:40",
                "FREQ=MINUTELY;INTERVAL=15;BYHOUR=6,7 | every 15 minutes from 6:00 and 7:00",
                "FREQ=HOURLY;INTERVAL=3 | every 3 hours at minute 40",
                "FREQ=DAILY;BYHOUR=6,18;UNTIL=20271231T000000Z | every day at 06:40 and 18:40, until 2027-12-31",
            })
    void aRecurrenceIsSaidInPlainWords(String rule, String words) {
        assertThat(RecurrenceWords.of(rule, LocalDateTime.parse("2027-05-01T05:40")))
                .isEqualTo(words);
    }
}
