package dev.oddsentry.service.evaluation;

import org.jspecify.annotations.Nullable;

/** A check that failed; the message is for the owning team. */
public final class CheckFailureException extends RuntimeException {
    public CheckFailureException(String message, @Nullable Throwable cause) {
        super(message, cause);
    }
}
