package dev.oddsentry.service.checks;

/** What a running check waits for before it asks its source. */
public enum WaitingFor {
    /** The planned closed hours of its source are over. */
    SOURCE_OPEN,
    /** The rule's ready query returns a row. */
    READY
}
