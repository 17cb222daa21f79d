package dev.oddsentry.service.mail;

import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.sources.SecretBox;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Collection;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;

/**
 * The unsubscribe link of each recipient: it works for one address and one message. A message is stored with a placeholder
 * and gets the recipient's link while it is sent, so that nobody finds it in the outbox.
 */
@Component
public class ReaderLinks {
    private static final String NOBODYS = "reader";
    private static final Pattern STORED = Pattern.compile("/leave/[0-9a-f-]{36}/" + NOBODYS);

    private final SecretBox secrets;
    private final String base;

    ReaderLinks(SecretBox secrets, Settings settings) {
        this.secrets = secrets;
        this.base = settings.baseUrl().toString();
    }

    /** As it is in the stored message. */
    public String stored(MessageId message) {
        return base + "/leave/" + message + "/" + NOBODYS;
    }

    /** The message as this recipient gets it; their mail program may unsubscribe with one click (RFC 8058). */
    public byte[] forReader(byte[] mime, MessageId message, String address) {
        String own = "/leave/" + message + "/" + token(message, address);
        return MessageTexts.changed(
                mime,
                text -> STORED.matcher(text).replaceAll(own),
                html -> STORED.matcher(html).replaceAll(own),
                heading -> {
                    heading.setHeader("List-Unsubscribe", "<" + base + own + ">");
                    heading.setHeader("List-Unsubscribe-Post", "List-Unsubscribe=One-Click");
                });
    }

    /** Whose link it is among those who got the message. */
    public Optional<String> reader(MessageId message, String token, Collection<String> addresses) {
        return addresses.stream()
                .filter(address -> MessageDigest.isEqual(bytes(token(message, address)), bytes(token)))
                .findFirst();
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private String token(MessageId message, String address) {
        return secrets.sign("leave " + message + " " + address.toLowerCase(Locale.ROOT));
    }
}
