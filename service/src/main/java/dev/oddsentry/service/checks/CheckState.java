package dev.oddsentry.service.checks;

import java.util.Set;

/** Where a check stands. Every move is from {@code RUNNING}, once. */
public enum CheckState {
    RUNNING,
    /** Ended well, nothing to report. */
    QUIET,
    /** Ended well, at least one message was queued. */
    FIRED,
    /** Ended well with nothing to report, but there are unknown groups. */
    INCOMPLETE,
    FAILED,
    PARTLY_FAILED,
    AWAITING_APPROVAL,
    STOPPED,
    /** Something changed under it; it wrote nothing and the slot runs again. */
    RESTARTED,
    /** Its slot lay before one that was done already. */
    SKIPPED;

    /** Those after which the slot is done and memory stands as the source was read. */
    static final Set<CheckState> GOOD = Set.of(QUIET, FIRED, INCOMPLETE);
}
