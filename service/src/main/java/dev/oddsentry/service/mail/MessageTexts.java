package dev.oddsentry.service.mail;

import jakarta.mail.BodyPart;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Properties;
import java.util.function.UnaryOperator;

/** Changes what a stored message says, and keeps its Message-ID and its files. */
final class MessageTexts {
    private MessageTexts() {}

    interface Heading {
        void set(MimeMessage message) throws MessagingException;
    }

    static byte[] changed(byte[] mime, UnaryOperator<String> text, UnaryOperator<String> html, Heading heading) {
        try {
            var message = new SameIdMessage(Session.getInstance(new Properties()), new ByteArrayInputStream(mime));
            change(message, text, html);
            heading.set(message);
            message.saveChanges();
            var bytes = new ByteArrayOutputStream(mime.length + 1024);
            message.writeTo(bytes);
            return bytes.toByteArray();
        } catch (MessagingException | IOException e) {
            throw new IllegalStateException("a stored message cannot be read", e);
        }
    }

    private static void change(Part part, UnaryOperator<String> text, UnaryOperator<String> html)
            throws MessagingException, IOException {
        if (part.getFileName() != null) return;
        if (part.isMimeType("text/plain") && part.getContent() instanceof String plain)
            part.setContent(text.apply(plain), "text/plain; charset=" + StandardCharsets.UTF_8.name());
        else if (part.isMimeType("text/html") && part.getContent() instanceof String styled)
            part.setContent(html.apply(styled), "text/html; charset=" + StandardCharsets.UTF_8.name());
        else if (part.isMimeType("multipart/*") && part.getContent() instanceof Multipart several)
            for (int i = 0; i < several.getCount(); i++) {
                BodyPart each = several.getBodyPart(i);
                change(each, text, html);
            }
    }

    /** The library would give it another id. */
    private static final class SameIdMessage extends MimeMessage {
        SameIdMessage(Session session, ByteArrayInputStream mime) throws MessagingException {
            super(session, mime);
        }

        @Override
        protected void updateMessageID() {
            // It has one.
        }
    }
}
