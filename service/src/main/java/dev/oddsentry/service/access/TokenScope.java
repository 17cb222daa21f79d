package dev.oddsentry.service.access;

/** What a token may be used for, from least to most; never more than its owner may do. */
public enum TokenScope {
    /** Looking. */
    READ,
    /** Also runs of queries, trials, and checks of rules. */
    CHECK,
    /** Also changes of what teams own, and of findings. */
    WRITE,
    /** All that its owner may do. */
    OPERATE;

    boolean covers(TokenScope needed) {
        return compareTo(needed) >= 0;
    }
}
