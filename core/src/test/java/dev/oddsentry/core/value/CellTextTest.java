package dev.oddsentry.core.value;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.Seeded;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CellTextTest {
    private static final ZoneId OSLO = ZoneId.of("Europe/Oslo");

    private static Object cell(Type type, Random random) {
        long seconds = random.nextInt(2_000_000_000);
        return switch (type) {
            case NUMBER -> BigDecimal.valueOf(random.nextLong(), random.nextInt(9));
            case TRUTH -> random.nextBoolean();
            case DATE -> LocalDate.ofEpochDay(random.nextInt(40_000));
            case TIME -> LocalTime.ofSecondOfDay(random.nextInt(86_400));
            case TIMESTAMP -> LocalDateTime.of(2026, 1, 1, 0, 0).plusSeconds(seconds);
            case INSTANT -> Instant.ofEpochSecond(seconds, random.nextInt(1_000_000) * 1_000L);
            default -> "Måkehamn " + random.nextInt();
        };
    }

    /** A key that was copied from a listing finds its finding, through both hours of a clock change too. */
    @Test
    void whatIsPrintedIsReadAsTheSameCell() {
        Seeded.cases(2_000, random -> {
            for (Type type :
                    new Type[] {Type.NUMBER, Type.TRUTH, Type.DATE, Type.TIME, Type.TIMESTAMP, Type.INSTANT, Type.TEXT
                    }) {
                Object cell = cell(type, random);
                assertThat(CellText.parse(CellText.of(cell, OSLO), type, OSLO)).isEqualTo(cell);
            }
        });
    }

    @ParameterizedTest
    @CsvSource({"NUMBER, twelve, a number", "DATE, 2026-02-30, a date", "INSTANT, now, a timestamp with time zone"})
    void whatIsNoCellOfItsTypeIsRefusedInWords(Type type, String text, String words) {
        assertThatThrownBy(() -> CellText.parse(text, type, OSLO))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("\"" + text + "\" is not " + words);
    }
}
