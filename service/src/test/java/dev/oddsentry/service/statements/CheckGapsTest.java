package dev.oddsentry.service.statements;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.extracts.mail.CheckStatement.Gap;
import dev.oddsentry.service.statements.CheckGaps.Ended;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The times of which no check can say anything. */
class CheckGapsTest {
    private static Instant at(long minute) {
        return Instant.EPOCH.plusSeconds(60 * minute);
    }

    private static Ended good(long minute) {
        return new Ended(at(minute), true);
    }

    private static Ended bad(long minute) {
        return new Ended(at(minute), false);
    }

    @Test
    void goodChecksLeaveNoGap() {
        assertThat(CheckGaps.of(null, List.of(), false)).isEmpty();
        assertThat(CheckGaps.of(null, List.of(good(1), good(2)), false)).isEmpty();
    }

    @Test
    void gapReachesFromTheLastGoodCheckToTheNext() {
        assertThat(CheckGaps.of(at(0), List.of(bad(1), bad(2), good(3), good(4), bad(5)), false))
                .containsExactly(new Gap(at(0), at(3)), new Gap(at(4), null));
    }

    @Test
    void nothingIsKnownBeforeTheFirstGoodCheck() {
        assertThat(CheckGaps.of(null, List.of(bad(1), good(2)), false)).containsExactly(new Gap(null, at(2)));
        assertThat(CheckGaps.of(null, List.of(bad(1)), false)).containsExactly(new Gap(null, null));
    }

    @Test
    void nothingIsKnownSinceTheLastCheckOfAPausedRule() {
        assertThat(CheckGaps.of(at(0), List.of(good(1), good(2)), true)).containsExactly(new Gap(at(2), null));
        assertThat(CheckGaps.of(at(0), List.of(good(1), bad(2)), true)).containsExactly(new Gap(at(1), null));
        assertThat(CheckGaps.of(null, List.of(), true)).containsExactly(new Gap(null, null));
    }

    /** Against the plain meaning: a minute between two checks is known if the checks on both its sides ended well. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void eachBadCheckLiesInOneGapAndNoGoodOneInAny(long seed) {
        var random = new Random(seed);
        for (int run = 0; run < 500; run++) {
            var ended = new ArrayList<Ended>();
            int length = random.nextInt(12);
            for (int minute = 1; minute <= length; minute++) ended.add(new Ended(at(minute), random.nextInt(3) > 0));
            Instant before = random.nextBoolean() ? at(0) : null;
            var gaps = CheckGaps.of(before, ended, false);
            for (var check : ended) {
                long within =
                        gaps.stream().filter(gap -> isWithin(gap, check.slot())).count();
                assertThat(within).as("%s in %s", check, gaps).isEqualTo(check.good() ? 0 : 1);
            }
            for (var gap : gaps) {
                assertThat(gap.after()).isIn(edges(before, ended));
                assertThat(gap.until()).isIn(edges(null, ended));
            }
        }
    }

    private static boolean isWithin(Gap gap, Instant slot) {
        return (gap.after() == null || gap.after().isBefore(slot))
                && (gap.until() == null || gap.until().isAfter(slot));
    }

    private static List<@Nullable Instant> edges(@Nullable Instant before, List<Ended> ended) {
        var edges = new ArrayList<@Nullable Instant>();
        edges.add(null);
        edges.add(before);
        ended.stream().filter(Ended::good).map(Ended::slot).forEach(edges::add);
        return edges;
    }
}
