package dev.oddsentry.core.condition;

/** What a condition says of one row, in SQL's three-valued logic. A row is an exception only where it is {@code TRUE}. */
public enum Verdict {
    TRUE,
    FALSE,
    UNKNOWN
}
