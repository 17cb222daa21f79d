package dev.oddsentry.service.queries;

import dev.oddsentry.service.failures.FailureKind;
import org.jspecify.annotations.Nullable;

/** A query did not run to its end; the message is for the analyst who owns it, never for a recipient. */
public final class QueryFailureException extends RuntimeException {
    private final FailureKind kind;

    public QueryFailureException(FailureKind kind, String message, @Nullable Throwable cause) {
        super(message, cause);
        this.kind = kind;
    }

    QueryFailureException(FailureKind kind, String message) {
        this(kind, message, null);
    }

    public FailureKind kind() {
        return kind;
    }
}
