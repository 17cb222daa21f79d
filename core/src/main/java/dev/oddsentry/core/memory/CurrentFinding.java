package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import org.jspecify.annotations.Nullable;

/**
 * The current state of one finding.
 *
 * @param held where it began, while it is pending; null otherwise
 * @param missed the first check of those in a row that missed it; null where the last good one saw it
 * @param better the check at which it cleared or its severity fell, from which {@code confirm_after} counts; null if neither
 * @param noData true while its group cannot be evaluated
 */
public record CurrentFinding(
        FindingState state,
        Severity severity,
        Digest fingerprint,
        MinimumDuration.@Nullable Start held,
        MinimumDuration.@Nullable Start missed,
        MinimumDuration.@Nullable Start better,
        boolean noData) {

    public static CurrentFinding of(FindingState state, Severity severity, Digest fingerprint) {
        return new CurrentFinding(state, severity, fingerprint, null, null, null, false);
    }

    CurrentFinding passedBy() {
        return new CurrentFinding(FindingState.AGED_OUT, severity, fingerprint, null, null, better, false);
    }

    /** @param check null where it never was open */
    CurrentFinding clearedAt(MinimumDuration.@Nullable Start check) {
        return new CurrentFinding(FindingState.CLEARED, severity, fingerprint, null, null, check, false);
    }

    CurrentFinding betterSince(MinimumDuration.@Nullable Start check) {
        return new CurrentFinding(state, severity, fingerprint, held, missed, check, noData);
    }

    CurrentFinding missedSince(MinimumDuration.Start first) {
        return new CurrentFinding(state, severity, fingerprint, held, first, better, false);
    }

    CurrentFinding withoutData() {
        return new CurrentFinding(state, severity, fingerprint, held, missed, better, true);
    }
}
