package dev.oddsentry.service.signon;

import org.jspecify.annotations.Nullable;

/** Somebody is not logged in; the message is for the audit and the log. */
public final class SignOnException extends RuntimeException {
    private final SignOnRefusal refusal;

    SignOnException(SignOnRefusal refusal, String message, @Nullable Throwable cause) {
        super(message, cause);
        this.refusal = refusal;
    }

    SignOnException(SignOnRefusal refusal, String message) {
        this(refusal, message, null);
    }

    public SignOnRefusal refusal() {
        return refusal;
    }
}
