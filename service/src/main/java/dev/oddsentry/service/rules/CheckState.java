package dev.oddsentry.service.rules;

import java.util.Set;

/** The state of a check. Every change is from {@code RUNNING}, once. */
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

    /** States after which the slot is done and memory matches the source. */
    public static final Set<CheckState> GOOD = Set.of(QUIET, FIRED, INCOMPLETE);
}
