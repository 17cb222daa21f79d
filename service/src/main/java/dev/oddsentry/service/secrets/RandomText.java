package dev.oddsentry.service.secrets;

import java.security.SecureRandom;
import java.util.Base64;

/** Texts that nobody can guess, fit for an address. */
public final class RandomText {
    private static final SecureRandom RANDOM = new SecureRandom();

    private RandomText() {}

    /** 256 random bits in Base64, 43 characters. */
    public static String make() {
        var bits = new byte[32];
        RANDOM.nextBytes(bits);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bits);
    }
}
