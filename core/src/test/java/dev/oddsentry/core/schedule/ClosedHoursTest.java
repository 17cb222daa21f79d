package dev.oddsentry.core.schedule;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ClosedHoursTest {
    @ParameterizedTest
    @CsvSource({
        "22:00-04:30 Europe/Oslo, 2026-05-04T19:59:59Z,",
        "22:00-04:30 Europe/Oslo, 2026-05-04T20:00:00Z, 2026-05-05T02:30:00Z",
        "22:00-04:30 Europe/Oslo, 2026-05-05T02:29:59Z, 2026-05-05T02:30:00Z",
        "22:00-04:30 Europe/Oslo, 2026-05-05T02:30:00Z,",
        "1:00-2:15 UTC,           2026-05-05T01:30:00Z, 2026-05-05T02:15:00Z",
        "1:00-2:15 UTC,           2026-05-05T00:30:00Z,",
        // In the night of the change an hour is skipped; half past two is read as half past three.
        "22:00-02:30 Europe/Oslo, 2026-03-29T00:30:00Z, 2026-03-29T01:30:00Z",
    })
    void aSourceOpensAgainAtTheEndOfItsHours(String hours, Instant now, @Nullable Instant opens) {
        assertThat(ClosedHours.parse(hours).opensAgain(now).orElse(null)).isEqualTo(opens);
        assertThat(ClosedHours.parse(ClosedHours.parse(hours).toString())).isEqualTo(ClosedHours.parse(hours));
    }

    @ParameterizedTest
    @ValueSource(strings = {"at night", "22:00-25:00 UTC", "22:00-04:30", "22:00-04:30 Skerry/Holm", "04:00-04:00 UTC"})
    void whatIsNoHoursIsRefused(String text) {
        assertThatThrownBy(() -> ClosedHours.parse(text)).isInstanceOf(IllegalArgumentException.class);
    }
}
