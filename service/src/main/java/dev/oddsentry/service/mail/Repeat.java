package dev.oddsentry.service.mail;

import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.ids.MessageId;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.Date;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** A message once more: the same content, marked in its subject, under an id of its own that refers to the first. */
@Component
public class Repeat {
    private static final String MARK = "Repeat: ";

    private final Settings settings;
    private final Clock clock;

    Repeat(Settings settings, Clock clock) {
        this.settings = settings;
        this.clock = clock;
    }

    public NewMessage of(byte[] mime, String subject, List<String> to) {
        String from = settings.mail().from();
        MessageId id = MessageId.random();
        String messageId = "<" + id + "@" + from.substring(from.indexOf('@') + 1) + ">";
        String marked = subject.startsWith(MARK) ? subject : MARK + subject;
        try {
            var message = new MimeMessage(Session.getInstance(new Properties()), new ByteArrayInputStream(mime)) {
                @Override
                protected void updateMessageID() throws MessagingException {
                    setHeader("Message-ID", messageId);
                }
            };
            String first = message.getMessageID();
            message.setSubject(marked, StandardCharsets.UTF_8.name());
            message.setSentDate(Date.from(clock.instant()));
            if (first != null) {
                message.setHeader("In-Reply-To", first);
                message.setHeader("References", first);
            }
            message.setRecipients(Message.RecipientType.CC, new InternetAddress[0]);
            message.setRecipients(
                    Message.RecipientType.TO,
                    InternetAddress.parse(
                            to.stream().map(MailDomains::inAscii).collect(Collectors.joining(",")), false));
            message.saveChanges();
            var bytes = new ByteArrayOutputStream();
            message.writeTo(bytes);
            return new NewMessage(id, messageId, marked, bytes.toByteArray(), to, Map.of(), NewMessage.Ways.USUAL);
        } catch (MessagingException | IOException e) {
            throw new IllegalStateException("a stored message cannot be read", e);
        }
    }
}
