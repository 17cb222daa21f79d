package dev.oddsentry.service.failures;

/** What made a check fail. It is kept with the check; each reader gets it in their own language. */
public enum FailureKind {
    /** The source as a whole, so that other rules fail of the same cause. */
    SOURCE_UNREACHABLE,
    /** All connections to the source were in use. */
    SOURCE_BUSY,
    /** The source refused the query. */
    SOURCE_REFUSED,
    /** The query took longer than it may. */
    TIME_LIMIT,
    RESULT_TOO_LARGE,
    /** The query's text, its parameters or the types of its columns. */
    QUERY_INVALID,
    /** A person or the service stopped the query. */
    QUERY_STOPPED,
    /** The rule and its query no longer fit each other. */
    RULE_INVALID,
    /** Another query that the rule names: it is gone, or lacks a column. */
    NAMED_QUERY,
    CONDITION,
    /** Two rows have the same key. */
    SAME_KEY,
    /** The rule says that an empty result is a failure. */
    EMPTY_RESULT,
    /** The data was not ready in time. */
    NOT_READY,
    /** The query or the column that names recipients. */
    RECIPIENTS,
    /** The files need a password, and there is none. */
    FILE_PASSWORD,
    MEMORY,
    /** The service ended several times during the check. */
    SERVICE_ENDED,
    DISK_FULL,
    /** More findings than the rule's safety limits allow: a person looks first. */
    SAFETY_LIMITS,
    /** Several personal copies, for different reasons. */
    PERSONAL_COPIES,
    INTERNAL;

    /** Whether another try might succeed. */
    public boolean mayPass() {
        return switch (this) {
            case SOURCE_UNREACHABLE,
                    SOURCE_BUSY,
                    SOURCE_REFUSED,
                    TIME_LIMIT,
                    RESULT_TOO_LARGE,
                    QUERY_INVALID,
                    QUERY_STOPPED,
                    DISK_FULL,
                    PERSONAL_COPIES,
                    INTERNAL -> true;
            case RULE_INVALID,
                    NAMED_QUERY,
                    CONDITION,
                    SAME_KEY,
                    EMPTY_RESULT,
                    NOT_READY,
                    RECIPIENTS,
                    FILE_PASSWORD,
                    MEMORY,
                    SERVICE_ENDED,
                    SAFETY_LIMITS -> false;
        };
    }
}
