package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Last report of a finding to an audience; also written if treated as known.
 *
 * @param reportedAt the slot of the last message with it; null if it was only treated as known
 */
public record LastReport(
        FindingState state,
        Severity severity,
        Digest fingerprint,
        @Nullable Instant reportedAt) {

    /** @param here whether it still belongs to this audience; one that moved is over for it */
    public static LastReport inMessage(CurrentFinding now, boolean here, Instant slot) {
        return of(now, here, slot);
    }

    /** Sets the state to the current one, and keeps the time of the last message. */
    public static LastReport treatedAsKnown(CurrentFinding now, boolean here, @Nullable LastReport before) {
        return of(now, here, before == null ? null : before.reportedAt());
    }

    private static LastReport of(CurrentFinding now, boolean here, @Nullable Instant reportedAt) {
        return new LastReport(stateFor(now, here), now.severity(), now.fingerprint(), reportedAt);
    }

    private static FindingState stateFor(CurrentFinding now, boolean here) {
        if (!here) return FindingState.CLEARED;
        // Treated as known, a pending finding counts as an open one.
        return now.state() == FindingState.PENDING ? FindingState.OPEN : now.state();
    }
}
