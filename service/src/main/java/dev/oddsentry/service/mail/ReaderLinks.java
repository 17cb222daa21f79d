package dev.oddsentry.service.mail;

import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.secrets.SecretBox;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.Collection;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;

/**
 * The links of each recipient, one to unsubscribe and one to all that they get: each works for one address and one message. A message is
 * stored with placeholders and gets the recipient's links while it is sent, so that nobody finds them in the outbox.
 */
@Component
public class ReaderLinks {
    /** From when the message was queued. */
    public static final Duration WORK_FOR = Duration.ofDays(90);

    private static final String NOBODYS = "reader";
    private static final Pattern STORED = Pattern.compile("/(leave|your-mail)/[0-9a-f-]{36}/" + NOBODYS);
    private static final Pattern LINE = Pattern.compile("(?m)^.*" + STORED.pattern() + "\\R?");
    private static final Pattern ANCHOR =
            Pattern.compile("(?: ·)? <a href=\"[^\"]*" + STORED.pattern() + "\"[^>]*>[^<]*</a>");

    private final SecretBox secrets;
    private final String base;

    ReaderLinks(SecretBox secrets, Settings settings) {
        this.secrets = secrets;
        this.base = settings.baseUrl().toString();
    }

    /** What a link is for. */
    public enum Purpose {
        LEAVE("leave"),
        YOUR_MAIL("your-mail");

        private final String path;

        Purpose(String path) {
            this.path = path;
        }
    }

    /** As it is in the stored message. */
    public String stored(Purpose purpose, MessageId message) {
        return base + path(purpose, message, NOBODYS);
    }

    /** The message as this recipient gets it; their mail program may unsubscribe with one click (RFC 8058). */
    public byte[] forReader(byte[] mime, MessageId message, String address, boolean mayLeave) {
        return MessageTexts.changed(
                mime, text -> own(text, message, address), html -> own(html, message, address), heading -> {
                    if (!mayLeave) return;
                    heading.setHeader("List-Unsubscribe", "<" + base + own(Purpose.LEAVE, message, address) + ">");
                    heading.setHeader("List-Unsubscribe-Post", "List-Unsubscribe=One-Click");
                });
    }

    private String own(String text, MessageId message, String address) {
        return STORED.matcher(text)
                .replaceAll(found -> own(
                        found.group(1).equals(Purpose.LEAVE.path) ? Purpose.LEAVE : Purpose.YOUR_MAIL,
                        message,
                        address));
    }

    /** The plain text of a stored message without such links. */
    public static String withoutLinks(String text) {
        return LINE.matcher(text).replaceAll("");
    }

    /** The HTML of a stored message without such links. */
    public static String withoutAnchors(String html) {
        return ANCHOR.matcher(html).replaceAll("");
    }

    /** Whose link it is among those who got the message. */
    public Optional<String> reader(Purpose purpose, MessageId message, String token, Collection<String> addresses) {
        return addresses.stream()
                .filter(address -> MessageDigest.isEqual(bytes(token(purpose, message, address)), bytes(token)))
                .findFirst();
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private String own(Purpose purpose, MessageId message, String address) {
        return path(purpose, message, token(purpose, message, address));
    }

    private static String path(Purpose purpose, MessageId message, String token) {
        return "/" + purpose.path + "/" + message + "/" + token;
    }

    private String token(Purpose purpose, MessageId message, String address) {
        return secrets.sign(purpose.path + " " + message + " " + address.toLowerCase(Locale.ROOT));
    }
}
