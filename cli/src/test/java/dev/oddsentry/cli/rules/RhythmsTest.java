package dev.oddsentry.cli.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Rhythms as people type them. */
class RhythmsTest {
    private static final LocalDate MONDAY = LocalDate.of(2026, 11, 30);

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "weekdays 05:40 | 05:40 | FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR",
                " Daily  9:05 | 09:05 | FREQ=DAILY",
                "monday thursday 08:00 | 08:00 | FREQ=WEEKLY;BYDAY=MO,TH",
                "Sunday, Monday 23:59 | 23:59 | FREQ=WEEKLY;BYDAY=SU,MO",
                "monthly 1 07:00 | 07:00 | FREQ=MONTHLY;BYMONTHDAY=1",
                "monthly -1 07:00 | 07:00 | FREQ=MONTHLY;BYMONTHDAY=-1",
                "every 15 minutes | 00:00 | FREQ=MINUTELY;INTERVAL=15",
                "every 1 hour | 00:00 | FREQ=HOURLY;INTERVAL=1",
            })
    void rhythmBecomesARecurrence(String typed, String at, String rule) {
        assertThat(Rhythms.read(typed, MONDAY))
                .hasValueSatisfying(schedule -> assertThat(schedule)
                        .containsEntry("start", "2026-11-30T" + at)
                        .containsEntry("recur", rule));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "whenever", "daily", "daily 25:00", "mondays 08:00", "every day", "every 0", "08:00"})
    void whatIsNoRhythmIsNotGuessed(String typed) {
        assertThat(Rhythms.read(typed, MONDAY)).isEmpty();
    }

    @Test
    void checksOnDemandHaveNoSchedule() {
        assertThat(Rhythms.read("on demand", MONDAY))
                .hasValueSatisfying(schedule -> assertThat(schedule).isEmpty());
    }
}
