package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import org.jspecify.annotations.Nullable;

/**
 * What is so now of one finding.
 *
 * @param held where it began, while it is pending; null otherwise
 * @param missed the first check of those in a row that missed it; null where the last good one saw it
 * @param noData true while its group cannot be judged
 */
public record Now(
        State state,
        Severity severity,
        Digest fingerprint,
        Patience.@Nullable Start held,
        Patience.@Nullable Start missed,
        boolean noData) {

    public static Now of(State state, Severity severity, Digest fingerprint) {
        return new Now(state, severity, fingerprint, null, null, false);
    }

    Now in(State other) {
        return of(other, severity, fingerprint);
    }

    Now missedSince(Patience.Start first) {
        return new Now(state, severity, fingerprint, held, first, false);
    }

    Now withoutData() {
        return new Now(state, severity, fingerprint, held, missed, true);
    }
}
