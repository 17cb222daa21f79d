package dev.oddsentry.service.mail;

import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.extracts.mail.Announcement;
import dev.oddsentry.extracts.mail.HtmlMail;
import dev.oddsentry.extracts.mail.RoundUp;
import dev.oddsentry.extracts.mail.RoundUpMail;
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
import java.util.List;
import java.util.Properties;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.web.util.HtmlUtils;

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
    public NewMessage build(List<String> to, RuleDefinition rule, Announcement said, byte @Nullable [] csv) {
        return build(to, TextMail.subject(said), rule.name() + ".rules", content(said, csv));
    }

    public NewMessage build(RoundUpDefinition roundUp, RoundUp said) {
        return build(
                roundUp.to(),
                RoundUpMail.subject(said),
                roundUp.name() + ".round-ups",
                alternatives(RoundUpMail.text(said), RoundUpMail.html(said)));
    }

    private NewMessage build(List<String> to, String subject, String list, MimeMultipart content) {
        String domain = settings.mail().from().substring(settings.mail().from().indexOf('@') + 1);
        String messageId = "<" + UUID.randomUUID() + "@" + domain + ">";
        try {
            var message = new FixedIdMessage(messageId);
            message.setFrom(
                    new InternetAddress(settings.mail().from(), settings.mail().fromName(), UTF_8));
            for (String address : to)
                message.addRecipient(Message.RecipientType.TO, new InternetAddress(address, true));
            message.setSubject(subject, UTF_8);
            message.setSentDate(Date.from(clock.instant()));
            message.setHeader("Auto-Submitted", "auto-generated");
            message.setHeader("List-Id", "<" + list + "." + domain + ">");
            message.setContent(content);
            message.saveChanges();
            var bytes = new ByteArrayOutputStream();
            message.writeTo(bytes);
            return new NewMessage(messageId, subject, bytes.toByteArray(), to);
        } catch (MessagingException | IOException e) {
            throw new IllegalStateException("a message could not be built", e);
        }
    }

    /** A message of plain text, without a rule. */
    public NewMessage plain(List<String> to, String subject, String text) {
        var html =
                "<!doctype html><html lang=\"en\"><body style=\"font-family: sans-serif; color: #22303c\"><div style=\"white-space: pre-wrap\">"
                        + HtmlUtils.htmlEscape(text, UTF_8) + "</div></body></html>";
        return build(to, subject, "trouble", alternatives(text, html));
    }

    private static MimeMultipart content(Announcement said, byte @Nullable [] csv) {
        var alternatives = alternatives(TextMail.render(said), HtmlMail.render(said));
        if (csv == null) return alternatives;
        try {
            var body = new MimeBodyPart();
            body.setContent(alternatives);
            var attachment = new MimeBodyPart();
            attachment.setDataHandler(new DataHandler(new ByteArrayDataSource(csv, "text/csv; charset=UTF-8")));
            attachment.setFileName(said.attachment());
            return new MimeMultipart(body, attachment);
        } catch (MessagingException e) {
            throw new IllegalStateException("a message could not be built", e);
        }
    }

    private static MimeMultipart alternatives(String plain, String styled) {
        try {
            var text = new MimeBodyPart();
            text.setText(plain, UTF_8);
            var html = new MimeBodyPart();
            html.setContent(styled, "text/html; charset=UTF-8");
            return new MimeMultipart("alternative", text, html);
        } catch (MessagingException e) {
            throw new IllegalStateException("a message could not be built", e);
        }
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
