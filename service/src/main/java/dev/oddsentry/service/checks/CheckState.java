package dev.oddsentry.service.checks;

import java.util.Set;

/** Where a check stands. Every move is from {@code RUNNING}, once. */
public enum CheckState {
    RUNNING,
    /** Ended well, nothing to report. */
    QUIET,
    /** Ended well, at least one message was queued. */
    FIRED,
    /** Ended well with nothing to report, but there are groups of which nobody can tell. */
    NOT_JUDGED,
    FAILED,
    PARTLY_FAILED,
    KEPT_BACK,
    STOPPED,
    /** Something changed under it; it wrote nothing and the slot runs again. */
    STALE,
    /** Its slot lay before one that was done already. */
    OVERTAKEN;

    /** Those after which the slot is done and memory stands as the source was read. */
    static final Set<CheckState> GOOD = Set.of(QUIET, FIRED, NOT_JUDGED);
}
