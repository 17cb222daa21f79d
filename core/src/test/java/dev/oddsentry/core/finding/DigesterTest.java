package dev.oddsentry.core.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class DigesterTest {
    private final Digester digester = new Digester(42);

    private Digest digest(Object... cells) {
        return digester.digest(Arrays.asList(cells));
    }

    @Test
    void equalValuesHaveOneDigestHoweverASourceDeliversThem() {
        assertThat(digest(1L)).isEqualTo(digest(new BigDecimal("1.00"))).isEqualTo(digest(new BigDecimal("1E0")));
        assertThat(digest(1000L)).isEqualTo(digest(new BigDecimal("1E+3")));
        assertThat(digest(0L)).isEqualTo(digest(new BigDecimal("-0.000")));
        assertThat(digest(Double.NaN)).isEqualTo(digest(0.0 / 0.0));
    }

    @Test
    void differentValuesFamiliesAndSplitsHaveDifferentDigests() {
        var all = List.of(
                digest("1"),
                digest(1L),
                digest(true),
                digest((Object) null),
                digest(),
                digest(null, null),
                digest("ab", "c"),
                digest("a", "bc"),
                digest("a "),
                digest("a"),
                digest("A"),
                digest(LocalDate.EPOCH),
                digest(LocalDate.EPOCH.atStartOfDay()),
                digest(Instant.EPOCH),
                digest(LocalDateTime.of(1970, 1, 1, 0, 0, 0, 1)),
                digest(new byte[] {1}),
                digest(Double.POSITIVE_INFINITY),
                digest(Double.NaN));
        assertThat(new HashSet<>(all)).hasSameSizeAs(all);
    }

    /** The short way that most numbers take gives the bytes that {@link BigDecimal} would. */
    @Test
    void numbersHaveTheBytesOfTheirShortestDecimal() throws IOException {
        var random = new Random(20261124);
        for (int i = 0; i < 20_000; i++) {
            long unscaled = random.nextLong() >> random.nextInt(Long.SIZE);
            if (random.nextBoolean()) unscaled = unscaled / 1000 * 1000;
            var number = BigDecimal.valueOf(unscaled, random.nextInt(-6, 7));
            if (random.nextInt(10) == 0) number = number.multiply(BigDecimal.valueOf(random.nextLong()));
            assertThat(encoded(number)).as(number.toString()).isEqualTo(shortest(number));
            assertThat(encoded(unscaled)).isEqualTo(shortest(BigDecimal.valueOf(unscaled)));
        }
        assertThat(encoded(Long.MIN_VALUE)).isEqualTo(shortest(BigDecimal.valueOf(Long.MIN_VALUE)));
    }

    private static byte[] encoded(Object cell) {
        var encoding = Encoding.of(List.of(cell));
        return Arrays.copyOf(encoding.bytes(), encoding.length());
    }

    private static byte[] shortest(BigDecimal number) throws IOException {
        var shortest = number.stripTrailingZeros();
        byte[] digits = shortest.unscaledValue().toByteArray();
        var bytes = new ByteArrayOutputStream();
        var out = new DataOutputStream(bytes);
        out.writeByte(1);
        out.writeInt(digits.length);
        out.write(digits);
        out.writeInt(shortest.signum() == 0 ? 0 : shortest.scale());
        return bytes.toByteArray();
    }

    @Test
    void anotherSeedGivesOtherDigests() {
        assertThat(new Digester(43).digest(List.of("SK-412"))).isNotEqualTo(digest("SK-412"));
    }

    /** Pinned: a change here makes every finding of every installation new, and needs a new version of the encoding. */
    @Test
    void theEncodingStandsStill() {
        assertThat(Digester.encodingVersion()).isEqualTo(1);
        assertThat(digest("SK-412", 7L, new BigDecimal("12.50"), null, LocalDate.parse("2026-11-24"))
                        .asUuid())
                .hasToString("727c2c01-863e-8cce-de65-c0958336a762");
    }
}
