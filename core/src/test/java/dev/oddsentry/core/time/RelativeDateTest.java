package dev.oddsentry.core.time;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class RelativeDateTest {

    @ParameterizedTest
    @CsvSource({
        "now,                          2026-03-31T01:10",
        "today,                        2026-03-31T00:00",
        "today - 7 days,               2026-03-24T00:00",
        "today - 1 month,              2026-02-28T00:00",
        "start of month - 1 day,       2026-02-28T00:00",
        "start of week,                2026-03-30T00:00",
        "start of quarter + 1 week,    2026-01-08T00:00",
        "now - 90 minutes,             2026-03-30T23:40",
        "2026-01-05,                   2026-01-05T00:00",
        "2026-01-05 06:30,             2026-01-05T06:30",
    })
    void isCalculatedFromTheSlotInTheZone(String text, LocalDateTime expected) {
        var slot = new Moment(Instant.parse("2026-03-30T23:10:00Z"), ZoneId.of("Europe/Oslo"));
        assertThat(RelativeDate.parse(text).localAt(slot)).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({
        // The slot's day is Tuesday 31 March; Thursday 2 and Friday 3 April and Monday the 6th are holidays.
        "previous working day,                2026-03-30T00:00",
        "next working day,                    2026-04-01T00:00",
        "today + 2 working days,              2026-04-07T00:00",
        "today - 2 working days,              2026-03-27T00:00",
        "start of month - 1 working day,      2026-02-27T00:00",
        "start of period,                     2026-03-30T00:00",
        "start of period - 1 period,          2026-02-23T00:00",
        "start of period + 1 period,          2026-04-27T00:00",
        "start of period + 2 periods,         2026-05-25T00:00",
        "start of period - 1 working day,     2026-03-27T00:00",
        "today - 1 period + 1 day,            2026-02-24T00:00",
        "now - 1 working day,                 2026-03-30T01:10",
    })
    void workingDaysAndPeriodsGoByTheCalendar(String text, LocalDateTime expected) {
        assertThat(RelativeDate.parse(text).localAt(on(PERIODS))).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({
        "previous working day,                2026-03-30T00:00",
        "start of period,                     2026-03-01T00:00",
        "start of period - 2 periods,         2026-01-01T00:00",
    })
    void withoutACalendarTheWeekAndTheMonthsCount(String text, LocalDateTime expected) {
        assertThat(RelativeDate.parse(text).localAt(on(WorkingDays.MONDAY_TO_FRIDAY)))
                .isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({
        "last check,                 2026-03-30T06:40",
        "Last check - 10 minutes,    2026-03-30T06:30",
        "last check - 1 working day, 2026-03-27T06:40",
    })
    void theLastCheckIsItsSlot(String text, LocalDateTime expected) {
        var moment = on(PERIODS).since(Instant.parse("2026-03-30T04:40:00Z"));
        assertThat(RelativeDate.parse(text).localAt(moment)).isEqualTo(expected);
        assertThat(RelativeDate.parse(text).moves()).isTrue();
        assertThat(RelativeDate.parse(text).isUnsettled()).isEqualTo(text.equals("last check"));
        assertThatThrownBy(() -> RelativeDate.parse(text).localAt(on(PERIODS)))
                .isInstanceOf(InvalidDefinitionException.class)
                .hasMessageContaining("write under schedule: start:");
    }

    @Test
    void inTheHourThatHappensTwiceTheWindowIsRatherTooWide() {
        // 02:30 for the second time, after the clocks went back on 25 October 2026.
        var last = Instant.parse("2026-10-25T01:30:00Z");
        var moment = new Moment(Instant.parse("2026-10-25T08:00:00Z"), ZoneId.of("Europe/Oslo")).since(last);
        var local = RelativeDate.parse("last check").localAt(moment);
        assertThat(local.atZone(moment.zone()).toInstant()).isEqualTo(last.minusSeconds(3600));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "start of period - 3 periods",
                "start of period + 3 periods",
                "start of period + 2 periods - 1 period"
            })
    void aPeriodThatTheCalendarDoesNotNameIsRefused(String text) {
        assertThatThrownBy(() -> RelativeDate.parse(text).localAt(on(PERIODS)))
                .isInstanceOf(InvalidDefinitionException.class)
                .hasMessageContaining("its periods go from 2026-01-26 to 2026-05-25");
    }

    private static final WorkingDays PERIODS = new WorkingDays(
            WorkingDays.MONDAY_TO_FRIDAY.week(),
            new TreeMap<>(Map.of(
                    LocalDate.of(2026, 4, 2), "Maundy Thursday",
                    LocalDate.of(2026, 4, 3), "Good Friday",
                    LocalDate.of(2026, 4, 6), "Easter Monday")),
            Set.of(),
            new TreeSet<>(Set.of(
                    LocalDate.of(2026, 1, 26),
                    LocalDate.of(2026, 2, 23),
                    LocalDate.of(2026, 3, 30),
                    LocalDate.of(2026, 4, 27),
                    LocalDate.of(2026, 5, 25))));

    private static Moment on(WorkingDays days) {
        return new Moment(Instant.parse("2026-03-30T23:10:00Z"), ZoneId.of("Europe/Oslo"), days);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "tomorow",
                "today - 7",
                "today 7 days",
                "start of fortnight",
                "nowadays",
                "2026-13-01",
                "today - 99999999 days"
            })
    void refusesWhatIsNone(String text) {
        assertThatThrownBy(() -> RelativeDate.parse(text))
                .isInstanceOf(InvalidDefinitionException.class)
                .hasMessageContaining("Examples: now, today");
    }
}
