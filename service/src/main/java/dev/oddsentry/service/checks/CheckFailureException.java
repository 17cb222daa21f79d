package dev.oddsentry.service.checks;

import org.jspecify.annotations.Nullable;

/** A check that could not be judged; the message is for the rule's owner. */
final class CheckFailureException extends RuntimeException {
    CheckFailureException(String message, @Nullable Throwable cause) {
        super(message, cause);
    }
}
