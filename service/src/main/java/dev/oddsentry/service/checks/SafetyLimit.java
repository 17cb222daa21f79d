package dev.oddsentry.service.checks;

import dev.oddsentry.core.memory.FindingChange;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.Evaluation;
import java.util.List;
import java.util.Optional;

/** Keeps a check back that would clear or open more at once than is likely to be true. */
final class SafetyLimit {
    private SafetyLimit() {}

    /** The limit that the check exceeds, in words; empty if it is within limits, was approved, or follows an edit. */
    static Optional<String> on(Attempt attempt, Evaluation evaluation) {
        if (attempt.rule().definition().isPlainReport()) return Optional.empty();
        if (attempt.released() || !attempt.pending().isNone()) return Optional.empty();
        long opened = opened(evaluation.moves());
        long cleared = cleared(evaluation.moves());
        long before = evaluation.open() - opened + cleared;
        return attempt.rule().definition().memory().safetyLimits().exceededBy(before, cleared, opened);
    }

    static long opened(List<FindingChange> moves) {
        return moves.stream()
                .filter(move -> move.now().state() == FindingState.OPEN && !wasOpen(move))
                .count();
    }

    static long cleared(List<FindingChange> moves) {
        return moves.stream().filter(FindingChange.Cleared.class::isInstance).count();
    }

    private static boolean wasOpen(FindingChange move) {
        return move.earlier()
                .map(before -> before.now().state() == FindingState.OPEN
                        || before.now().state() == FindingState.AGED_OUT)
                .orElse(false);
    }
}
