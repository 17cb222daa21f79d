package dev.oddsentry.service.outbox;

/** Where one recipient of one message stands. */
public enum RecipientState {
    WAITING,
    HANDING_OVER,
    /** The mail server took it. */
    SENT,
    /** The line was lost after the data; it is sent once more with the same Message-ID. */
    UNSURE,
    /** The mail server will not take it. */
    REFUSED,
    /** Given up after the set time. */
    EXPIRED,
    STOPPED
}
