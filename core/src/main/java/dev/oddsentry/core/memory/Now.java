package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;

/** What is so now of one finding. */
public record Now(State state, Severity severity, Digest fingerprint) {

    Now in(State other) {
        return new Now(other, severity, fingerprint);
    }
}
