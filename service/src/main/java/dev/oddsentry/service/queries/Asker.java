package dev.oddsentry.service.queries;

import dev.oddsentry.service.sources.Lane;

/**
 * Somebody who waits for an answer while a query runs. What runs without one is a check.
 */
public interface Asker {
    /** Bound while a request is answered or a back-test runs. */
    ScopedValue<Asker> CURRENT = ScopedValue.newInstance();

    /** Who waits, as a log-in name; empty if not known yet. */
    String login();

    /** Whether nobody waits any more, so that what runs for them may end. */
    boolean isGone();

    /** Whose connections the calling thread's queries use. */
    static Lane lane() {
        return CURRENT.isBound() ? Lane.BY_HAND : Lane.CHECKS;
    }
}
