package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;

/** What an audience was last told of one finding, or was let pass for it. */
public record Reported(State state, Severity severity, Digest fingerprint) {

    public static Reported of(Now now) {
        // Taken as known, a pending one is as known as an open one.
        var state = now.state() == State.PENDING ? State.OPEN : now.state();
        return new Reported(state, now.severity(), now.fingerprint());
    }
}
