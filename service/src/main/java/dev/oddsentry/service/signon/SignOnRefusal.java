package dev.oddsentry.service.signon;

/** Why somebody who came by a provider is not logged in, as the log-in page says it. */
public enum SignOnRefusal {
    /** The browser was not sent there by this service, came back before, or took too long. */
    EXPIRED,
    /** There is no such provider, or it has been switched off. */
    OFF,
    /** The provider refused, or the person did. */
    BY_PROVIDER,
    UNREACHABLE,
    /** What the provider said does not prove itself. */
    UNTRUSTED,
    /** None of the person's groups gives access. */
    NO_GROUP,
    /** Nobody here is known as this person, and the provider adds nobody. */
    NOT_KNOWN,
    DISABLED;

    /** Whether a browser that was sent to a provider came back. */
    public boolean isOfAnAttempt() {
        return this != EXPIRED && this != OFF;
    }
}
