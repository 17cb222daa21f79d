package dev.oddsentry.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.Seeded;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ValuesTest {

    @Test
    void decodingWhatWasEncodedGivesTheSameCell() {
        Seeded.cases(2_000, random -> {
            Object cell = cell(random);
            assertThat(CellCodec.decode(CellCodec.encode(cell))).isEqualTo(cell);
        });
        assertThat(CellCodec.decode(CellCodec.encode(null))).isNull();
    }

    private static Object cell(Random random) {
        var epoch = LocalDateTime.of(1, 1, 1, 0, 0)
                .plusSeconds(random.nextLong(100_000_000_000L))
                .plusNanos(random.nextInt(1_000_000_000));
        return switch (random.nextInt(9)) {
            case 0 -> random.nextLong();
            case 1 -> new BigDecimal(new BigInteger(200, random), random.nextInt(60) - 20);
            case 2 ->
                List.of(Double.NaN, Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY)
                        .get(random.nextInt(3));
            case 3 -> List.of("", "n1", "Gråvik 😀", "a\nb\u0000").get(random.nextInt(4));
            case 4 -> random.nextBoolean();
            case 5 -> epoch.toLocalDate();
            case 6 -> epoch.toLocalTime();
            case 7 -> epoch;
            default ->
                List.of(Instant.MAX, Instant.MIN, epoch.atZone(ZoneId.of("UTC")).toInstant())
                        .get(random.nextInt(3));
        };
    }

    @Test
    void wholeNumbersAreExactWhateverTheirSize() {
        Seeded.cases(3_000, random -> {
            long a = random.nextLong() >> random.nextInt(64);
            long b = random.nextLong() >> random.nextInt(64);
            assertThat(Numbers.decimal(Numbers.add(a, b)))
                    .isEqualByComparingTo(BigDecimal.valueOf(a).add(BigDecimal.valueOf(b)));
            assertThat(Numbers.decimal(Numbers.subtract(a, b)))
                    .isEqualByComparingTo(BigDecimal.valueOf(a).subtract(BigDecimal.valueOf(b)));
            assertThat(Numbers.decimal(Numbers.multiply(a, b)))
                    .isEqualByComparingTo(BigDecimal.valueOf(a).multiply(BigDecimal.valueOf(b)));
        });
    }

    @Test
    void textsSortByCodePoint() {
        Seeded.cases(2_000, random -> {
            String a = text(random);
            String b = text(random);
            int byCodePoint = java.util.Arrays.compare(
                    a.codePoints().toArray(), b.codePoints().toArray());
            assertThat(Integer.signum(Texts.compare(a, b))).isEqualTo(Integer.signum(byCodePoint));
        });
    }

    private static String text(Random random) {
        return random.ints(random.nextInt(4), 0, 5)
                .mapToObj(i -> List.of("a", "å", "ﬀ", "😀", "\uffff").get(i))
                .reduce("", String::concat);
    }

    @Test
    void cellsReadAsPeopleWriteThem() {
        var oslo = ZoneId.of("Europe/Oslo");
        assertThat(CellText.of(new BigDecimal("1.50"), oslo)).isEqualTo("1.50");
        assertThat(CellText.of(new BigDecimal("1E+3"), oslo)).isEqualTo("1000");
        assertThat(CellText.of(new BigDecimal("1E+900"), oslo)).isEqualTo("1E+900");
        assertThat(CellText.of(LocalDate.MAX, oslo)).isEqualTo("infinity");
        assertThat(CellText.of(LocalDateTime.MIN, oslo)).isEqualTo("-infinity");
        assertThat(CellText.of(Instant.parse("2026-11-24T04:40:00Z"), oslo)).isEqualTo("2026-11-24 05:40+01:00");
        assertThat(CellText.of(LocalTime.of(6, 30, 5), oslo)).isEqualTo("06:30:05");
        assertThat(CellText.of(LocalDate.of(2026, 1, 2), oslo)).isEqualTo("2026-01-02");
        assertThat(CellText.of(null, oslo)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "52.63261851015801, 52.633",
        "0.000412345, 0.000412",
        "-0.0996, -0.0996",
        "999.9999, 1000",
        "12.5, 12.5",
        "0.0000, 0",
    })
    void aMeasuredValueIsRoundedForPeople(BigDecimal exact, String read) {
        assertThat(CellText.of(Numbers.readable(exact), ZoneOffset.UTC)).isEqualTo(read);
    }
}
