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
    private static final Patience.Start SINCE = new Patience.Start(7, Instant.parse("2026-11-24T04:40:00Z"));

    private static Digest digest(Random random) {
        return new Digest(random.nextLong(), random.nextLong());
    }

    private static Move.Opened opened(Random random) {
        var severity = Severity.values()[random.nextInt(3)];
        var fingerprint = digest(random);
        var now = random.nextBoolean()
                ? Now.of(State.OPEN, severity, fingerprint)
                : new Now(State.PENDING, severity, fingerprint, SINCE, null, null, false);
        return new Move.Opened(new Sighting(digest(random), List.of(), severity, true, fingerprint, List.of()), now);
    }

    @Test
    void thoseThatOpenComeFirstAndAllAreAsTheyWereRecorded() {
        var random = new Random(4);
        var opened = new ArrayList<Move>();
        var others = new ArrayList<Move>();
        var moves = new Moves();
        for (int i = 0; i < 5_000; i++) {
            boolean opens = random.nextInt(3) > 0;
            Move move = opens
                    ? opened(random)
                    : new Move.Cleared(
                            new Known(i + 1, digest(random), Now.of(State.OPEN, Severity.WARNING, digest(random))),
                            Now.of(State.CLEARED, Severity.WARNING, digest(random)));
            (opens ? opened : others).add(move);
            moves.record(move);
        }
        assertThat(moves.opened()).isEqualTo(opened.size());
        assertThat(moves.key(17))
                .isEqualTo(((Move.Opened) opened.get(17)).sighting().key());
        var expected = new ArrayList<>(opened);
        expected.addAll(others);
        assertThat(moves).isEqualTo(expected);
        assertThat(Moves.of(expected)).isEqualTo(moves);
        assertThat(new Moves()).isEmpty();
    }
}
