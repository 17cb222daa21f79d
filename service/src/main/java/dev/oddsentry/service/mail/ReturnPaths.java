package dev.oddsentry.service.mail;

import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.secrets.SecretBox;
import java.math.BigInteger;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.Base64;
import java.util.Collection;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * The sender in a message's envelope, one for each message and recipient: {@code bounces+TOKEN@skerryline.example}. The token holds the message's number and a
 * signature, so that only a report that answers that very envelope counts: a Message-ID is known to everybody who was sent the message, and to
 * whomever they forward it. Letters and digits alone, in either case, since mail systems change case.
 */
@Component
public class ReturnPaths {
    private static final int RADIX = 32;
    private static final int MESSAGE_DIGITS = 26;
    private static final int SIGNATURE_DIGITS = 16;
    private static final int SIGNATURE_BYTES = 10;
    private static final Pattern TOKEN = Pattern.compile(
            "\\+([0-9a-v]{" + MESSAGE_DIGITS + "})([0-9a-v]{" + SIGNATURE_DIGITS + "})@", Pattern.CASE_INSENSITIVE);

    private final SecretBox secrets;
    private final @Nullable String mailbox;

    ReturnPaths(SecretBox secrets, Settings settings) {
        this.secrets = secrets;
        this.mailbox = settings.mail().bounces() == null
                ? null
                : settings.mail().bounces().address();
    }

    /** What an envelope's sender claims; {@link #recipient} checks it. */
    public record Token(MessageId message, String signature) {}

    /** @return {@code null} if no mailbox for reports is named */
    @Nullable
    String of(MessageId message, String recipient) {
        if (mailbox == null) return null;
        int at = mailbox.lastIndexOf('@');
        return mailbox.substring(0, at) + "+" + digits(bytes(message), MESSAGE_DIGITS) + signature(message, recipient)
                + mailbox.substring(at);
    }

    /** @param address to which a report came, perhaps with a name */
    public static Optional<Token> read(String address) {
        var found = TOKEN.matcher(address);
        if (!found.find()) return Optional.empty();
        var number = new BigInteger(found.group(1).toLowerCase(Locale.ROOT), RADIX);
        if (number.bitLength() > 128) return Optional.empty();
        var message = new MessageId(new UUID(number.shiftRight(64).longValue(), number.longValue()));
        return Optional.of(new Token(message, found.group(2).toLowerCase(Locale.ROOT)));
    }

    /** The recipient whose envelope carried the token; empty if there is none. */
    public Optional<String> recipient(Token token, Collection<String> recipients) {
        byte[] given = token.signature().getBytes(StandardCharsets.US_ASCII);
        return recipients.stream()
                .filter(address -> MessageDigest.isEqual(
                        signature(token.message(), address).getBytes(StandardCharsets.US_ASCII), given))
                .findFirst();
    }

    private String signature(MessageId message, String recipient) {
        byte[] signed = Base64.getUrlDecoder()
                .decode(secrets.sign("bounce " + message + " " + recipient.toLowerCase(Locale.ROOT)));
        return digits(Arrays.copyOf(signed, SIGNATURE_BYTES), SIGNATURE_DIGITS);
    }

    private static byte[] bytes(MessageId message) {
        var id = message.value();
        return ByteBuffer.allocate(16)
                .putLong(id.getMostSignificantBits())
                .putLong(id.getLeastSignificantBits())
                .array();
    }

    private static String digits(byte[] bytes, int length) {
        String digits = new BigInteger(1, bytes).toString(RADIX);
        return "0".repeat(length - digits.length()) + digits;
    }
}
