package dev.oddsentry.core.memory;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Kept as numbers, moves are what they were. */
class MovesTest {
    private static final MinimumDuration.Start SINCE =
            new MinimumDuration.Start(7, Instant.parse("2026-11-24T04:40:00Z"));

    private static Digest digest(Random random) {
        return new Digest(random.nextLong(), random.nextLong());
    }

    private static FindingChange.Opened opened(Random random) {
        var severity = Severity.values()[random.nextInt(3)];
        var fingerprint = digest(random);
        var now = random.nextBoolean()
                ? CurrentFinding.of(FindingState.OPEN, severity, fingerprint)
                : new CurrentFinding(FindingState.PENDING, severity, fingerprint, SINCE, null, null, false);
        return new FindingChange.Opened(
                new EvaluatedRow(digest(random), List.of(), severity, true, fingerprint, List.of()), now);
    }

    @Test
    void thoseThatOpenComeFirstAndAllAreAsTheyWereRecorded() {
        var random = new Random(4);
        var opened = new ArrayList<FindingChange>();
        var others = new ArrayList<FindingChange>();
        var moves = new Moves();
        for (int i = 0; i < 5_000; i++) {
            boolean opens = random.nextInt(3) > 0;
            FindingChange move = opens
                    ? opened(random)
                    : new FindingChange.Cleared(
                            new StoredFinding(
                                    i + 1,
                                    digest(random),
                                    CurrentFinding.of(FindingState.OPEN, Severity.WARNING, digest(random))),
                            CurrentFinding.of(FindingState.CLEARED, Severity.WARNING, digest(random)));
            (opens ? opened : others).add(move);
            moves.record(move);
        }
        assertThat(moves.opened()).isEqualTo(opened.size());
        assertThat(moves.key(17))
                .isEqualTo(
                        ((FindingChange.Opened) opened.get(17)).evaluatedRow().key());
        var expected = new ArrayList<>(opened);
        expected.addAll(others);
        assertThat(moves).isEqualTo(expected);
        assertThat(Moves.of(expected)).isEqualTo(moves);
        assertThat(new Moves()).isEmpty();
    }
}
