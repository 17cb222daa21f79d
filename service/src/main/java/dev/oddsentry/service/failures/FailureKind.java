package dev.oddsentry.service.failures;

/** What made a check fail. It is kept with the check; each reader gets it in their own language. */
public enum FailureKind {
    /** The source as a whole, so that other rules fail of the same cause. */
    SOURCE_UNREACHABLE(true),
    /** All connections to the source were in use. */
    SOURCE_BUSY(true),
    /** The source refused the query. */
    SOURCE_REFUSED(true),
    /** The query took longer than it may. */
    TIME_LIMIT(true),
    RESULT_TOO_LARGE(true),
    /** The query's text, its parameters or the types of its columns. */
    QUERY_INVALID(true),
    /** A person or the service stopped the query. */
    QUERY_STOPPED(true),
    /** The rule and its query no longer fit each other. */
    RULE_INVALID(false),
    /** Another query that the rule names: it is gone, or lacks a column. */
    NAMED_QUERY(false),
    CONDITION(false),
    /** Two rows have the same key. */
    SAME_KEY(false),
    /** The rule says that an empty result is a failure. */
    EMPTY_RESULT(false),
    /** The data was not ready in time. */
    NOT_READY(false),
    /** The query or the column that names recipients. */
    RECIPIENTS(false),
    /** The files need a password, and there is none. */
    FILE_PASSWORD(false),
    MEMORY(false),
    /** The service ended several times during the check. */
    SERVICE_ENDED(false),
    DISK_FULL(true),
    /** More findings than the rule's safety limits allow: a person looks first. */
    SAFETY_LIMITS(false),
    /** Several personal copies, for different reasons. */
    PERSONAL_COPIES(true),
    INTERNAL(true);

    private final boolean mayPass;

    FailureKind(boolean mayPass) {
        this.mayPass = mayPass;
    }

    /** Whether another try might succeed. */
    public boolean mayPass() {
        return mayPass;
    }
}
