package dev.oddsentry.core.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
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
