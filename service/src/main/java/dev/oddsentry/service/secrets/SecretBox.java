package dev.oddsentry.service.secrets;

import dev.oddsentry.service.config.Settings;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import java.util.Base64;
import javax.crypto.Cipher;
import javax.crypto.Mac;
import javax.crypto.SecretKey;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.stereotype.Component;

/**
 * Encrypts stored passwords with AES-256-GCM under a key that is not in the database: from the setting {@code oddsentry.key}
 * (environment {@code ODDSENTRY_KEY}) or the file that {@code oddsentry.key-file} names.
 */
@Component
public class SecretBox {
    private static final int KEY_BYTES = 32;
    private static final int NONCE_BYTES = 12;
    private static final int TAG_BITS = 128;
    private static final int SIGNATURE_BYTES = 16;

    private final SecretKey key;
    private final SecureRandom random = new SecureRandom();

    SecretBox(Settings settings) {
        this.key = new SecretKeySpec(keyBytes(settings), "AES");
    }

    private static byte[] keyBytes(Settings settings) {
        String encoded = encodedKey(settings);
        try {
            byte[] bytes = Base64.getDecoder().decode(encoded.strip());
            if (bytes.length == KEY_BYTES) return bytes;
        } catch (IllegalArgumentException notBase64) {
            // falls through: the advice below is the same, and the key must not be shown
        }
        throw new IllegalStateException("The key for stored passwords must be " + KEY_BYTES
                + " bytes in Base64; make one with: head -c 32 /dev/urandom | base64");
    }

    private static String encodedKey(Settings settings) {
        try {
            if (settings.key() != null) return settings.key();
            if (settings.keyFile() != null) return Files.readString(settings.keyFile());
        } catch (IOException e) {
            throw new IllegalStateException("The key file " + settings.keyFile() + " cannot be read", e);
        }
        throw new IllegalStateException(
                "No key for stored passwords: set ODDSENTRY_KEY, or oddsentry.key-file to a file that holds it");
    }

    public byte[] seal(String secret) {
        var nonce = new byte[NONCE_BYTES];
        random.nextBytes(nonce);
        byte[] sealed = run(Cipher.ENCRYPT_MODE, nonce, secret.getBytes(StandardCharsets.UTF_8));
        return ByteBuffer.allocate(nonce.length + sealed.length)
                .put(nonce)
                .put(sealed)
                .array();
    }

    /** @throws IllegalStateException if it was sealed under another key */
    public String open(byte[] sealed) {
        var buffer = ByteBuffer.wrap(sealed);
        var nonce = new byte[NONCE_BYTES];
        buffer.get(nonce);
        var rest = new byte[buffer.remaining()];
        buffer.get(rest);
        return new String(run(Cipher.DECRYPT_MODE, nonce, rest), StandardCharsets.UTF_8);
    }

    /** What nobody can make up without the key, fit for a link: 128 bits of an HMAC. */
    public String sign(String text) {
        try {
            var mac = Mac.getInstance("HmacSHA256");
            // Another key than the one that encrypts, made of it.
            mac.init(new SecretKeySpec(key.getEncoded(), "HmacSHA256"));
            byte[] own = mac.doFinal("links".getBytes(StandardCharsets.UTF_8));
            mac.init(new SecretKeySpec(own, "HmacSHA256"));
            byte[] signature = mac.doFinal(text.getBytes(StandardCharsets.UTF_8));
            return Base64.getUrlEncoder().withoutPadding().encodeToString(Arrays.copyOf(signature, SIGNATURE_BYTES));
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    private byte[] run(int mode, byte[] nonce, byte[] input) {
        try {
            var cipher = Cipher.getInstance("AES/GCM/NoPadding");
            cipher.init(mode, key, new GCMParameterSpec(TAG_BITS, nonce));
            return cipher.doFinal(input);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(
                    "A stored password cannot be opened with this key; was the key changed?", e);
        }
    }
}
