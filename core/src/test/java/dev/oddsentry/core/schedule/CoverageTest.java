package dev.oddsentry.core.schedule;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.schedule.Coverage.Stretch;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CoverageTest {
    private static Stretch stretch(long from, long to) {
        return new Stretch(Instant.ofEpochSecond(from), Instant.ofEpochSecond(to));
    }

    /** Each stretch as {@code from-to}; a gap likewise, or nothing. */
    @ParameterizedTest
    @CsvSource(
            nullValues = "-",
            value = {
                "0-10, -",
                "0-10 10-20 20-30, -",
                "0-10 5-20 20-30, -",
                "0-10 11-20, 10-11",
                "0-10 10-12 20-30 40-50, 12-20",
                "0-100 10-20 30-40 100-110, -",
                "0-100 10-20 30-40 101-110, 100-101",
                "5-5 5-10, -",
            })
    void findsTheFirstTimeThatNoStretchCovers(String stretches, String gap) {
        assertThat(Coverage.firstGap(read(stretches)))
                .isEqualTo(Optional.ofNullable(gap).map(each -> read(each).getFirst()));
    }

    private static List<Stretch> read(String text) {
        var stretches = new ArrayList<Stretch>();
        for (String each : text.split(" ")) {
            var ends = each.split("-");
            stretches.add(stretch(Long.parseLong(ends[0]), Long.parseLong(ends[1])));
        }
        return stretches;
    }

    @Test
    void nothingHasNoGap() {
        assertThat(Coverage.firstGap(List.of())).isEmpty();
    }

    /** Held against counting second by second. */
    @Test
    void findsAGapWhereverASecondIsSeenByNoStretch() {
        var random = new Random(15);
        for (int round = 0; round < 2_000; round++) {
            var stretches = new ArrayList<Stretch>();
            int from = 0;
            boolean[] seen = new boolean[200];
            int last = 0;
            for (int i = 0; i < 1 + random.nextInt(6); i++) {
                from += random.nextInt(12);
                int to = from + random.nextInt(15);
                stretches.add(stretch(from, to));
                for (int second = from; second < to; second++) seen[second] = true;
                last = Math.max(last, to);
            }
            int first = (int) stretches.getFirst().to().getEpochSecond();
            int gap = first;
            while (gap < last && seen[gap]) gap++;
            var found =
                    Coverage.firstGap(stretches).map(each -> (int) each.from().getEpochSecond());
            assertThat(found.orElse(last)).as(stretches.toString()).isEqualTo(gap);
        }
    }
}
