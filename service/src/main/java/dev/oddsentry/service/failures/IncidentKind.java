package dev.oddsentry.service.failures;

/** What an incident is about. Incidents of one kind and name are one, and make one notice. */
public enum IncidentKind {
    /** A source that its rules cannot reach; named by the source. */
    SOURCE,
    /** A rule whose checks fail for a reason of its own; named by the rule, as are the next two. */
    RULE,
    AWAITING_APPROVAL,
    NO_ROWS,
    /** A message that reached nobody; has no name, and is over at once, as are the next two. */
    MAIL_UNDELIVERED,
    MAIL_UNCONFIRMED,
    /** An address that nothing is sent to any more; named by the address. */
    MAIL_BLOCKED
}
