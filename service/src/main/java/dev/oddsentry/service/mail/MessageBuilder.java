package dev.oddsentry.service.mail;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.extracts.mail.Announcement;
import dev.oddsentry.extracts.mail.HtmlMail;
import dev.oddsentry.extracts.mail.TextMail;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.outbox.NewMessage;
import jakarta.activation.DataHandler;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeBodyPart;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeMultipart;
import jakarta.mail.util.ByteArrayDataSource;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.Date;
import java.util.Properties;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The bytes of a message, Message-ID included: text and HTML side by side, the extract attached. */
@Component
public class MessageBuilder {
    private static final String UTF_8 = StandardCharsets.UTF_8.name();

    private final Settings settings;
    private final Clock clock;

    MessageBuilder(Settings settings, Clock clock) {
        this.settings = settings;
        this.clock = clock;
    }

    /** @param csv the attachment named in {@code said}; null for none */
    public NewMessage build(RuleDefinition rule, Announcement said, byte @Nullable [] csv) {
        String domain = settings.mail().from().substring(settings.mail().from().indexOf('@') + 1);
        String messageId = "<" + UUID.randomUUID() + "@" + domain + ">";
        String subject = TextMail.subject(said);
        try {
            var message = new FixedIdMessage(messageId);
            message.setFrom(
                    new InternetAddress(settings.mail().from(), settings.mail().fromName(), UTF_8));
            for (String address : rule.delivery().to())
                message.addRecipient(Message.RecipientType.TO, new InternetAddress(address, true));
            message.setSubject(subject, UTF_8);
            message.setSentDate(Date.from(clock.instant()));
            message.setHeader("Auto-Submitted", "auto-generated");
            message.setHeader("List-Id", "<" + rule.name() + ".rules." + domain + ">");
            message.setContent(content(said, csv));
            message.saveChanges();
            var bytes = new ByteArrayOutputStream();
            message.writeTo(bytes);
            return new NewMessage(
                    messageId, subject, bytes.toByteArray(), rule.delivery().to());
        } catch (MessagingException | IOException e) {
            throw new IllegalStateException("a message could not be built", e);
        }
    }

    private static MimeMultipart content(Announcement said, byte @Nullable [] csv) throws MessagingException {
        var text = new MimeBodyPart();
        text.setText(TextMail.render(said), UTF_8);
        var html = new MimeBodyPart();
        html.setContent(HtmlMail.render(said), "text/html; charset=UTF-8");
        var alternatives = new MimeMultipart("alternative", text, html);
        if (csv == null) return alternatives;
        var body = new MimeBodyPart();
        body.setContent(alternatives);
        var attachment = new MimeBodyPart();
        attachment.setDataHandler(new DataHandler(new ByteArrayDataSource(csv, "text/csv; charset=UTF-8")));
        attachment.setFileName(said.attachment());
        return new MimeMultipart(body, attachment);
    }

    /** The library would give a message another id each time it is saved. */
    private static final class FixedIdMessage extends MimeMessage {
        private final String messageId;

        FixedIdMessage(String messageId) {
            super(Session.getInstance(new Properties()));
            this.messageId = messageId;
        }

        @Override
        protected void updateMessageID() throws MessagingException {
            setHeader("Message-ID", messageId);
        }
    }
}
