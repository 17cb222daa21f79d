package dev.oddsentry.core.time;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
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
    void isReckonedFromTheSlotInTheZone(String text, LocalDateTime expected) {
        var slot = new Moment(Instant.parse("2026-03-30T23:10:00Z"), ZoneId.of("Europe/Oslo"));
        assertThat(RelativeDate.parse(text).localAt(slot)).isEqualTo(expected);
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
                .hasMessageContaining("write now, today");
    }
}
