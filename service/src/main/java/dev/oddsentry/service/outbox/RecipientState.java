package dev.oddsentry.service.outbox;

/** The state of one recipient of a message. */
public enum RecipientState {
    QUEUED,
    SENDING,
    /** The mail server took it. */
    SENT,
    /** The end of the last try is not known; it is tried again with the same Message-ID. */
    UNSURE,
    /** Given up without knowing whether it arrived: the result of one try is unknown, and no other was accepted. */
    UNCONFIRMED,
    /** The mail server will not take it. */
    REJECTED,
    /** Given up after the set time. */
    EXPIRED,
    CANCELLED,
    /** Kept back for the collection that the recipient chose. */
    WAITING,
    /** Queued with that collection. */
    COLLECTED
}
