package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * What an audience last heard of one finding, or was treated as known for it.
 *
 * @param toldAt the slot of the message that reported it last; null where it was only treated as known
 */
public record LastReport(
        FindingState state,
        Severity severity,
        Digest fingerprint,
        @Nullable Instant toldAt) {

    /** @param here whether it belongs to this audience still; one that moved away is over for it */
    public static LastReport told(CurrentFinding now, boolean here, Instant slot) {
        return of(now, here, slot);
    }

    /** Reported moves to now, last told does not. */
    public static LastReport letPass(CurrentFinding now, boolean here, @Nullable LastReport before) {
        return of(now, here, before == null ? null : before.toldAt());
    }

    private static LastReport of(CurrentFinding now, boolean here, @Nullable Instant toldAt) {
        return new LastReport(stateFor(now, here), now.severity(), now.fingerprint(), toldAt);
    }

    private static FindingState stateFor(CurrentFinding now, boolean here) {
        if (!here) return FindingState.CLEARED;
        // Taken as known, a pending one is as known as an open one.
        return now.state() == FindingState.PENDING ? FindingState.OPEN : now.state();
    }
}
