package dev.oddsentry.service.queries;

/** A query did not run to its end; the message is for the analyst who owns it, never for a recipient. */
public final class QueryFailureException extends RuntimeException {
    public QueryFailureException(String message, Throwable cause) {
        super(message, cause);
    }

    public QueryFailureException(String message) {
        super(message);
    }
}
