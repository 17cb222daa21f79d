package dev.oddsentry.service.evaluation;

/** What began a check. */
public enum CheckOrigin {
    SCHEDULED,
    ON_DEMAND,
    /** An outside event arrived. */
    EVENT,
    /** A check of a rule that this one follows. */
    CHAINED
}
