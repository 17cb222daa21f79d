package dev.oddsentry.service.checks;

import dev.oddsentry.core.memory.Move;
import dev.oddsentry.core.memory.State;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.Evaluation;
import java.util.List;
import java.util.Optional;

/** Keeps a check back that would clear or open more at once than is likely to be true. */
final class SafetyLimit {
    private SafetyLimit() {}

    /** Why the check is kept back; empty if it is not, since it is within bounds, was let through, or follows an edit. */
    static Optional<String> on(Attempt attempt, Evaluation reckoned) {
        if (attempt.released() || !attempt.pending().isNone()) return Optional.empty();
        long opened = opened(reckoned.moves());
        long cleared = cleared(reckoned.moves());
        long before = reckoned.open() - opened + cleared;
        return attempt.rule().definition().memory().brakes().keepBack(before, cleared, opened);
    }

    static long opened(List<Move> moves) {
        return moves.stream()
                .filter(move -> move.now().state() == State.OPEN && !wasOpen(move))
                .count();
    }

    static long cleared(List<Move> moves) {
        return moves.stream().filter(Move.Cleared.class::isInstance).count();
    }

    private static boolean wasOpen(Move move) {
        return move.earlier()
                .map(before ->
                        before.now().state() == State.OPEN || before.now().state() == State.OUT_OF_SIGHT)
                .orElse(false);
    }
}
