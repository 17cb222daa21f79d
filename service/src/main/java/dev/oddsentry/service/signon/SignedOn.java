package dev.oddsentry.service.signon;

import java.io.Serializable;
import java.util.UUID;

/**
 * By which provider a session began; kept in the session, for the log-out there.
 *
 * @param idToken what the provider said; it logs nobody in
 */
public record SignedOn(UUID provider, String idToken) implements Serializable {
    /** The attribute of the session. */
    public static final String IN_SESSION = "odd.signed-on";

    /** It has a person's name and address. */
    @Override
    public String toString() {
        return "signed on by " + provider;
    }
}
