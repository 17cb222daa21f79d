package dev.oddsentry.service.evaluation;

import org.jspecify.annotations.Nullable;

/** A check that could not be judged; the message is for the rule's owner. */
public final class CheckFailureException extends RuntimeException {
    public CheckFailureException(String message, @Nullable Throwable cause) {
        super(message, cause);
    }
}
