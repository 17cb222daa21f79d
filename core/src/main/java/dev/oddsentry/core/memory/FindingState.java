package dev.oddsentry.core.memory;

/** The current state of a finding. */
public enum FindingState {
    /** An exception that has not lasted long enough yet. */
    PENDING,
    OPEN,
    /** A moving window left it behind: nobody knows whether it was put right, so it is never called cleared. */
    AGED_OUT,
    CLEARED
}
