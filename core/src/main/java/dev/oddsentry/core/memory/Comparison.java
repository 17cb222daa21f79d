package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Compares one result with memory, row by row as they stream: {@link #see} for every row, exceptions and others, then
 * {@link #finish} once the result was read to its end. Gone is only reckoned there, never from a result that was cut off.
 */
public final class Comparison {
    private final Map<Digest, Known> notSeenYet = new HashMap<>();
    private final Map<Digest, Known> known;
    private final Rules rules;
    private final Patience.Tick tick;
    private final Set<Digest> seen = new HashSet<>();
    private final List<Move> moves = new ArrayList<>();
    private long exceptions;

    /** How a rule wants its findings to move. */
    public record Rules(Absence absence, Patience hold, Patience misses) {}

    public Comparison(List<Known> known, Rules rules, Patience.Tick tick) {
        known.forEach(each -> notSeenYet.put(each.key(), each));
        this.known = Map.copyOf(notSeenYet);
        this.rules = rules;
        this.tick = tick;
    }

    /** @throws DuplicateIdentityException if a row of this identity was seen before */
    public void see(Sighting sighting) {
        if (!seen.add(sighting.key())) throw new DuplicateIdentityException(sighting.identity());
        Known before = known.get(sighting.key());
        notSeenYet.remove(sighting.key());
        Severity severity = sighting.severity();
        if (severity != null) {
            exceptions++;
            var now = seen(before, severity, sighting.fingerprint());
            if (before == null) moves.add(new Move.Opened(sighting, now));
            else if (!now.equals(before.now())) moves.add(new Move.Altered(before, sighting, now));
        } else if (before != null) {
            if (sighting.judged()) miss(before);
            else withoutData(before);
        }
    }

    private Now seen(@Nullable Known before, Severity severity, Digest fingerprint) {
        State was = before == null ? State.CLEARED : before.now().state();
        if (was == State.OPEN || was == State.OUT_OF_SIGHT) return Now.of(State.OPEN, severity, fingerprint);
        var held = before == null || before.now().held() == null
                ? tick.start()
                : before.now().held();
        return rules.hold().isOver(held, tick)
                ? Now.of(State.OPEN, severity, fingerprint)
                : new Now(State.PENDING, severity, fingerprint, held, null, false);
    }

    /** In the result but no exception, or gone where that means the same. */
    private void miss(Known before) {
        State was = before.now().state();
        if (was == State.CLEARED) return;
        var first = before.now().missed() == null ? tick.start() : before.now().missed();
        boolean over = was == State.OUT_OF_SIGHT || rules.misses().isOver(first, tick);
        if (!over) {
            var now = before.now().missedSince(first);
            if (!now.equals(before.now())) moves.add(new Move.Missed(before, now));
        } else if (was == State.PENDING) {
            moves.add(new Move.Forgotten(before, before.now().in(State.CLEARED)));
        } else {
            moves.add(new Move.Cleared(before, before.now().in(State.CLEARED)));
        }
    }

    private void withoutData(Known before) {
        boolean lasts = before.now().state() == State.OPEN || before.now().state() == State.PENDING;
        if (lasts && !before.now().noData())
            moves.add(new Move.WithoutData(before, before.now().withoutData()));
    }

    /** The moves of this check. What did not move is not among them. */
    public List<Move> finish() {
        for (Known gone : notSeenYet.values()) {
            switch (gone.now().state()) {
                case PENDING -> miss(gone);
                case OPEN -> absent(gone);
                case OUT_OF_SIGHT, CLEARED -> {}
            }
        }
        return List.copyOf(moves);
    }

    private void absent(Known gone) {
        switch (rules.absence()) {
            case PUT_RIGHT -> miss(gone);
            case PASSED_BY -> moves.add(new Move.PassedBy(gone, gone.now().in(State.OUT_OF_SIGHT)));
            case STAYS -> {}
        }
    }

    public long exceptions() {
        return exceptions;
    }
}
