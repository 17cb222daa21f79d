package dev.oddsentry.service.queries;

/** A query did not run to its end; the message is for the analyst who owns it, never for a recipient. */
public final class QueryFailureException extends RuntimeException {
    /** What is to blame. */
    public enum Blame {
        QUERY,
        /** The source as a whole, so that other queries fail of the same cause. */
        SOURCE,
        /** All connections that it might use were in use. */
        BUSY,
        /** It took longer than it may. */
        TIME
    }

    private final Blame blame;

    QueryFailureException(String message, Blame blame, Throwable cause) {
        super(message, cause);
        this.blame = blame;
    }

    public QueryFailureException(String message, Throwable cause) {
        this(message, Blame.QUERY, cause);
    }

    public QueryFailureException(String message) {
        super(message);
        this.blame = Blame.QUERY;
    }

    public Blame blame() {
        return blame;
    }
}
