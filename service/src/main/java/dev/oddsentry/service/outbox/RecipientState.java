package dev.oddsentry.service.outbox;

/** Where one recipient of one message stands. */
public enum RecipientState {
    QUEUED,
    SENDING,
    /** The mail server took it. */
    SENT,
    /** The end of the last try is not known; it is tried again with the same Message-ID. */
    UNSURE,
    /** Given up, and nobody knows whether it arrived: of one try the end is not known, and no other was taken. */
    UNCONFIRMED,
    /** The mail server will not take it. */
    REJECTED,
    /** Given up after the set time. */
    EXPIRED,
    CANCELLED
}
