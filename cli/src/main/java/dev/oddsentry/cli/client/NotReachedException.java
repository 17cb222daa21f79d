package dev.oddsentry.cli.client;

/** The service did not answer, or nobody is logged in; the message says what to do. */
public final class NotReachedException extends RuntimeException {
    public NotReachedException(String message) {
        super(message);
    }
}
