package dev.oddsentry.service.people;

import dev.oddsentry.service.web.RefusedException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.Semaphore;
import org.jspecify.annotations.Nullable;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;

/** What a password must be, and its salted hash. Hashing takes much time on purpose, so only a few run at once. */
final class Passwords {
    private static final int MIN_CHARACTERS = 10;
    private static final int MIN_DIFFERENT = 5;
    /** BCrypt reads no more bytes than these. */
    private static final int BCRYPT_BYTES = 72;

    private static final int AT_ONCE = Math.max(1, Runtime.getRuntime().availableProcessors() / 2);

    /** Long enough, and yet among the first that anybody guesses. */
    private static final Set<String> COMMON = Set.of(
            "1234567890",
            "12345678910",
            "0123456789",
            "qwertyuiop",
            "qwerty12345",
            "password12",
            "password123",
            "password1234",
            "passw0rd123",
            "iloveyou123",
            "letmein1234",
            "welcome1234",
            "administrator",
            "changeme123",
            "abcdefghij",
            "abcd123456",
            "1q2w3e4r5t",
            "zaq12wsxcde");

    private final PasswordEncoder encoder = PasswordEncoderFactories.createDelegatingPasswordEncoder();
    private final Semaphore hashing = new Semaphore(AT_ONCE, true);
    /** Compared with where a login is unknown, so that both answers take the same time. */
    private final String nobodysHash = encoder.encode("nobody has this password");

    /** @throws RefusedException with what is wrong with it */
    static void check(String login, String password) {
        String name = login.toLowerCase(Locale.ROOT);
        String lower = password.toLowerCase(Locale.ROOT);
        int characters = password.codePointCount(0, password.length());
        if (characters < MIN_CHARACTERS)
            throw RefusedException.invalid(
                    "The password has " + characters + " characters; at least " + MIN_CHARACTERS + " are needed.");
        if (password.codePoints().distinct().count() < MIN_DIFFERENT)
            throw RefusedException.invalid("The password repeats the same few characters; at least " + MIN_DIFFERENT
                    + " different ones are needed.");
        if (COMMON.contains(lower) || isNameWithLittleElse(name, lower))
            throw RefusedException.invalid(
                    "The password is easy to guess. Choose another, such as four unrelated words.");
    }

    private static boolean isNameWithLittleElse(String name, String password) {
        return name.length() >= 4 && password.replace(name, "").length() < MIN_CHARACTERS / 2;
    }

    String hash(String password) {
        return encoder.encode(fitted(password));
    }

    /** @param hash {@code null} if there is no such person; the answer takes as long then */
    boolean matches(String password, @Nullable String hash) {
        hashing.acquireUninterruptibly();
        try {
            boolean matches = encoder.matches(fitted(password), hash == null ? nobodysHash : hash);
            return hash != null && matches;
        } finally {
            hashing.release();
        }
    }

    /** A password that is longer than the hash reads is digested first, so that all of it counts. */
    private static String fitted(String password) {
        byte[] bytes = password.getBytes(StandardCharsets.UTF_8);
        if (bytes.length <= BCRYPT_BYTES) return password;
        try {
            return Base64.getEncoder()
                    .encodeToString(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException everyJdkHasIt) {
            throw new IllegalStateException(everyJdkHasIt);
        }
    }
}
