package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Severity;
import org.jspecify.annotations.Nullable;

/**
 * Compares one result with memory, row by row as they stream: {@link #see} for every row, exceptions and others, then
 * {@link #finish} once the result was read to its end. Gone is only calculated there, never from a result that was cut off.
 */
public final class Comparison {
    private final KnownTable known;
    private final Rules rules;
    private final MinimumDuration.Tick tick;
    private final Moves moves = new Moves();
    private long exceptions;
    private long open;

    /**
     * How a rule wants its findings to move.
     *
     * @param guard the number of slots within which a cleared finding may return as if it had not cleared
     */
    public record Rules(Absence absence, MinimumDuration hold, MinimumDuration misses, int guard) {
        /** Those of a check that starts over: whatever is not in its result is over at once. */
        public Rules restarted() {
            return new Rules(Absence.CLEARS, hold, MinimumDuration.NONE, guard);
        }
    }

    /** @param known taken over; the comparison marks in it what it has seen */
    public Comparison(KnownTable known, Rules rules, MinimumDuration.Tick tick) {
        this.known = known;
        this.rules = rules;
        this.tick = tick;
        this.open = known.countOf(FindingState.OPEN);
    }

    /**
     * @return the current state of the finding; null where the row is no exception
     * @throws DuplicateIdentityException if a row of this identity was seen before
     */
    public @Nullable CurrentFinding see(EvaluatedRow evaluatedRow) {
        StoredFinding before = known.find(evaluatedRow.key());
        if (!known.see(evaluatedRow.key())) throw new DuplicateIdentityException(evaluatedRow.identity());
        Severity severity = evaluatedRow.severity();
        if (severity != null) {
            exceptions++;
            return before == null ? open(evaluatedRow, severity) : alter(before, evaluatedRow, severity);
        }
        if (before != null) {
            if (evaluatedRow.evaluated()) miss(before);
            else withoutData(before);
        }
        return null;
    }

    private CurrentFinding open(EvaluatedRow evaluatedRow, Severity severity) {
        var now = fromUnknown(null, severity, evaluatedRow);
        move(new FindingChange.Opened(evaluatedRow.withoutCells(), now));
        return now;
    }

    private CurrentFinding alter(StoredFinding before, EvaluatedRow evaluatedRow, Severity severity) {
        boolean restarts = isOver(before.now());
        var now =
                restarts ? fromUnknown(null, severity, evaluatedRow) : seenAgain(before.now(), severity, evaluatedRow);
        if (!now.equals(before.now()))
            move(new FindingChange.Altered(before, evaluatedRow.withoutCells(), now, restarts));
        return now;
    }

    private CurrentFinding seenAgain(CurrentFinding was, Severity severity, EvaluatedRow evaluatedRow) {
        if (was.state() == FindingState.PENDING) return fromUnknown(was.held(), severity, evaluatedRow);
        var better = was.state() == FindingState.CLEARED || severity.isWorseThan(was.severity()) ? null : was.better();
        boolean fell = was.severity().isWorseThan(severity);
        return CurrentFinding.of(FindingState.OPEN, severity, evaluatedRow.fingerprint())
                .betterSince(fell ? tick.start() : better);
    }

    /** Cleared for longer than a quick return takes: whatever comes now is as if never seen. */
    private boolean isOver(CurrentFinding was) {
        return was.state() == FindingState.CLEARED
                && (was.better() == null || tick.isConfirmed(was.better(), rules.guard()));
    }

    private CurrentFinding fromUnknown(
            MinimumDuration.@Nullable Start since, Severity severity, EvaluatedRow evaluatedRow) {
        var held = since == null ? tick.start() : since;
        return rules.hold().isOver(held, tick)
                ? CurrentFinding.of(FindingState.OPEN, severity, evaluatedRow.fingerprint())
                : new CurrentFinding(
                        FindingState.PENDING, severity, evaluatedRow.fingerprint(), held, null, null, false);
    }

    /** In the result but no exception, or gone where that means the same. */
    private void miss(StoredFinding before) {
        FindingState was = before.now().state();
        if (was == FindingState.CLEARED) return;
        var first = before.now().missed() == null ? tick.start() : before.now().missed();
        boolean over = was == FindingState.AGED_OUT || rules.misses().isOver(first, tick);
        if (!over) {
            var now = before.now().missedSince(first);
            if (!now.equals(before.now())) move(new FindingChange.Missed(before, now));
        } else if (was == FindingState.PENDING) {
            move(new FindingChange.Forgotten(before, before.now().clearedAt(null)));
        } else {
            move(new FindingChange.Cleared(before, before.now().clearedAt(tick.start())));
        }
    }

    private void withoutData(StoredFinding before) {
        boolean lasts =
                before.now().state() == FindingState.OPEN || before.now().state() == FindingState.PENDING;
        if (lasts && !before.now().noData())
            move(new FindingChange.WithoutData(before, before.now().withoutData()));
    }

    private void move(FindingChange move) {
        moves.record(move);
        if (move.now().state() == FindingState.OPEN) open++;
        boolean wasOpen = move.earlier()
                .map(before -> before.now().state() == FindingState.OPEN)
                .orElse(false);
        if (wasOpen) open--;
    }

    /** The moves of this check. What did not move is not among them. */
    public Moves finish() {
        known.forEachNotSeen(gone -> {
            switch (gone.now().state()) {
                case PENDING -> miss(gone);
                case OPEN -> absent(gone);
                case AGED_OUT, CLEARED -> {}
            }
        });
        return moves;
    }

    private void absent(StoredFinding gone) {
        switch (rules.absence()) {
            case CLEARS -> miss(gone);
            case AGES_OUT -> move(new FindingChange.AgedOut(gone, gone.now().passedBy()));
            case STAYS_OPEN -> {}
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
        return known.countOf(FindingState.OPEN);
    }
}
