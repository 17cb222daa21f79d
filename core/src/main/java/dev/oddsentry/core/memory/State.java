package dev.oddsentry.core.memory;

/** What is so now of a finding. {@code pending}, a hold not yet reached, joins these with holds. */
public enum State {
    OPEN,
    /** A moving window left it behind: nobody knows whether it was put right, so it is never called cleared. */
    OUT_OF_SIGHT,
    CLEARED
}
