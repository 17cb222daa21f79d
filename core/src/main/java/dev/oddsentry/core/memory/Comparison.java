package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Compares one result with memory, row by row as they stream: {@link #see} for every row, exceptions and others, then
 * {@link #finish} once the result was read to its end. Gone is only reckoned there, never from a result that was cut off.
 */
public final class Comparison {
    private final Map<Digest, Known> notSeenYet = new HashMap<>();
    private final Map<Digest, Known> known;
    private final Absence absence;
    private final Set<Digest> seen = new HashSet<>();
    private final List<Move> moves = new ArrayList<>();
    private long exceptions;

    public Comparison(List<Known> known, Absence absence) {
        known.forEach(each -> notSeenYet.put(each.key(), each));
        this.known = Map.copyOf(notSeenYet);
        this.absence = absence;
    }

    /** @throws DuplicateIdentityException if a row of this identity was seen before */
    public void see(Sighting sighting) {
        if (!seen.add(sighting.key())) throw new DuplicateIdentityException(sighting.identity());
        Known before = known.get(sighting.key());
        notSeenYet.remove(sighting.key());
        Severity severity = sighting.severity();
        if (severity != null) {
            exceptions++;
            var now = new Now(State.OPEN, severity, sighting.fingerprint());
            if (before == null) moves.add(new Move.Opened(sighting, now));
            else if (!now.equals(before.now())) moves.add(new Move.Altered(before, sighting, now));
        } else if (before != null && before.now().state() != State.CLEARED) {
            moves.add(new Move.Cleared(before, before.now().in(State.CLEARED)));
        }
    }

    /** The moves of this check. What did not move is not among them. */
    public List<Move> finish() {
        for (Known gone : notSeenYet.values()) {
            if (gone.now().state() != State.OPEN) continue;
            switch (absence) {
                case PUT_RIGHT -> moves.add(new Move.Cleared(gone, gone.now().in(State.CLEARED)));
                case PASSED_BY -> moves.add(new Move.PassedBy(gone, gone.now().in(State.OUT_OF_SIGHT)));
                case STAYS -> {}
            }
        }
        return List.copyOf(moves);
    }

    public long exceptions() {
        return exceptions;
    }
}
