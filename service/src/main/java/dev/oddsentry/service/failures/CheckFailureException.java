package dev.oddsentry.service.failures;

import org.jspecify.annotations.Nullable;

/** A check that failed; the message is for the owning team. */
public final class CheckFailureException extends RuntimeException {
    private final FailureKind kind;

    public CheckFailureException(FailureKind kind, String message) {
        this(kind, message, null);
    }

    public CheckFailureException(FailureKind kind, String message, @Nullable Throwable cause) {
        super(message, cause);
        this.kind = kind;
    }

    public FailureKind kind() {
        return kind;
    }
}
