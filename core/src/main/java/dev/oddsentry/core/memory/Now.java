package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import org.jspecify.annotations.Nullable;

/**
 * What is so now of one finding.
 *
 * @param held where it began, while it is pending; null otherwise
 * @param missed the first check of those in a row that missed it; null where the last good one saw it
 * @param better the check at which it cleared or its severity fell, from which the guard counts; null where neither is so
 * @param noData true while its group cannot be judged
 */
public record Now(
        State state,
        Severity severity,
        Digest fingerprint,
        Patience.@Nullable Start held,
        Patience.@Nullable Start missed,
        Patience.@Nullable Start better,
        boolean noData) {

    public static Now of(State state, Severity severity, Digest fingerprint) {
        return new Now(state, severity, fingerprint, null, null, null, false);
    }

    Now passedBy() {
        return new Now(State.OUT_OF_SIGHT, severity, fingerprint, null, null, better, false);
    }

    /** @param check null where it never was open */
    Now clearedAt(Patience.@Nullable Start check) {
        return new Now(State.CLEARED, severity, fingerprint, null, null, check, false);
    }

    Now betterSince(Patience.@Nullable Start check) {
        return new Now(state, severity, fingerprint, held, missed, check, noData);
    }

    Now missedSince(Patience.Start first) {
        return new Now(state, severity, fingerprint, held, first, better, false);
    }

    Now withoutData() {
        return new Now(state, severity, fingerprint, held, missed, better, true);
    }
}
