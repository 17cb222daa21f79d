package dev.oddsentry.service.secrets;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;

/** SHA-256 of a text; for secrets of so many random bits that nobody can try them all. */
public final class Hashes {
    private Hashes() {}

    public static byte[] of(String secret) {
        try {
            return MessageDigest.getInstance("SHA-256").digest(secret.getBytes(StandardCharsets.UTF_8));
        } catch (NoSuchAlgorithmException everyJdkHasIt) {
            throw new IllegalStateException(everyJdkHasIt);
        }
    }

    /** In Base64 for addresses. */
    public static String text(String secret) {
        return Base64.getUrlEncoder().withoutPadding().encodeToString(of(secret));
    }
}
