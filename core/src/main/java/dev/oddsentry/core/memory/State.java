package dev.oddsentry.core.memory;

/** What is so now of a finding. */
public enum State {
    /** An exception that has not lasted long enough yet. */
    PENDING,
    OPEN,
    /** A moving window left it behind: nobody knows whether it was put right, so it is never called cleared. */
    OUT_OF_SIGHT,
    CLEARED
}
