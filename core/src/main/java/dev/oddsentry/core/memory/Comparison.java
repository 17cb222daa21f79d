package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Severity;
import org.jspecify.annotations.Nullable;

/**
 * Compares one result with memory, row by row as they stream: {@link #see} for every row, exceptions and others, then
 * {@link #finish} once the result was read to its end. Gone is only reckoned there, never from a result that was cut off.
 */
public final class Comparison {
    private final KnownTable known;
    private final Rules rules;
    private final Patience.Tick tick;
    private final Moves moves = new Moves();
    private long exceptions;
    private long open;

    /**
     * How a rule wants its findings to move.
     *
     * @param guard within how many slots one that cleared may come back as if it had not
     */
    public record Rules(Absence absence, Patience hold, Patience misses, int guard) {
        /** Those of a check that starts anew: whatever is not in its result is over at once. */
        public Rules anew() {
            return new Rules(Absence.PUT_RIGHT, hold, Patience.NONE, guard);
        }
    }

    /** @param known taken over; the comparison marks in it what it has seen */
    public Comparison(KnownTable known, Rules rules, Patience.Tick tick) {
        this.known = known;
        this.rules = rules;
        this.tick = tick;
        this.open = known.countOf(State.OPEN);
    }

    /**
     * @return what is so now of the finding; null where the row is no exception
     * @throws DuplicateIdentityException if a row of this identity was seen before
     */
    public @Nullable Now see(Sighting sighting) {
        Known before = known.find(sighting.key());
        if (!known.see(sighting.key())) throw new DuplicateIdentityException(sighting.identity());
        Severity severity = sighting.severity();
        if (severity != null) {
            exceptions++;
            return before == null ? open(sighting, severity) : alter(before, sighting, severity);
        }
        if (before != null) {
            if (sighting.judged()) miss(before);
            else withoutData(before);
        }
        return null;
    }

    private Now open(Sighting sighting, Severity severity) {
        var now = fromUnknown(null, severity, sighting);
        move(new Move.Opened(sighting.withoutCells(), now));
        return now;
    }

    private Now alter(Known before, Sighting sighting, Severity severity) {
        boolean anew = isOver(before.now());
        var now = anew ? fromUnknown(null, severity, sighting) : seenAgain(before.now(), severity, sighting);
        if (!now.equals(before.now())) move(new Move.Altered(before, sighting.withoutCells(), now, anew));
        return now;
    }

    private Now seenAgain(Now was, Severity severity, Sighting sighting) {
        if (was.state() == State.PENDING) return fromUnknown(was.held(), severity, sighting);
        var better = was.state() == State.CLEARED || severity.isWorseThan(was.severity()) ? null : was.better();
        boolean fell = was.severity().isWorseThan(severity);
        return Now.of(State.OPEN, severity, sighting.fingerprint()).betterSince(fell ? tick.start() : better);
    }

    /** Cleared for longer than a quick return takes: whatever comes now is as if never seen. */
    private boolean isOver(Now was) {
        return was.state() == State.CLEARED && (was.better() == null || tick.isGuardOver(was.better(), rules.guard()));
    }

    private Now fromUnknown(Patience.@Nullable Start since, Severity severity, Sighting sighting) {
        var held = since == null ? tick.start() : since;
        return rules.hold().isOver(held, tick)
                ? Now.of(State.OPEN, severity, sighting.fingerprint())
                : new Now(State.PENDING, severity, sighting.fingerprint(), held, null, null, false);
    }

    /** In the result but no exception, or gone where that means the same. */
    private void miss(Known before) {
        State was = before.now().state();
        if (was == State.CLEARED) return;
        var first = before.now().missed() == null ? tick.start() : before.now().missed();
        boolean over = was == State.OUT_OF_SIGHT || rules.misses().isOver(first, tick);
        if (!over) {
            var now = before.now().missedSince(first);
            if (!now.equals(before.now())) move(new Move.Missed(before, now));
        } else if (was == State.PENDING) {
            move(new Move.Forgotten(before, before.now().clearedAt(null)));
        } else {
            move(new Move.Cleared(before, before.now().clearedAt(tick.start())));
        }
    }

    private void withoutData(Known before) {
        boolean lasts = before.now().state() == State.OPEN || before.now().state() == State.PENDING;
        if (lasts && !before.now().noData())
            move(new Move.WithoutData(before, before.now().withoutData()));
    }

    private void move(Move move) {
        moves.record(move);
        if (move.now().state() == State.OPEN) open++;
        boolean wasOpen =
                move.earlier().map(before -> before.now().state() == State.OPEN).orElse(false);
        if (wasOpen) open--;
    }

    /** The moves of this check. What did not move is not among them. */
    public Moves finish() {
        known.forEachNotSeen(gone -> {
            switch (gone.now().state()) {
                case PENDING -> miss(gone);
                case OPEN -> absent(gone);
                case OUT_OF_SIGHT, CLEARED -> {}
            }
        });
        return moves;
    }

    private void absent(Known gone) {
        switch (rules.absence()) {
            case PUT_RIGHT -> miss(gone);
            case PASSED_BY -> move(new Move.PassedBy(gone, gone.now().passedBy()));
            case STAYS -> {}
        }
    }

    /** How many moves there are so far. */
    public int moves() {
        return moves.size();
    }

    public long exceptions() {
        return exceptions;
    }

    /** How many findings are open: after {@link #finish}, as this check leaves them. */
    public long open() {
        return open;
    }

    /** How many were open before this check. */
    public long openBefore() {
        return known.countOf(State.OPEN);
    }
}
