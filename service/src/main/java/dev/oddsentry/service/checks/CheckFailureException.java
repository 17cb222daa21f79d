package dev.oddsentry.service.checks;

/** A check that could not be judged; the message is for the rule's owner. */
final class CheckFailureException extends RuntimeException {
    CheckFailureException(String message, Throwable cause) {
        super(message, cause);
    }
}
