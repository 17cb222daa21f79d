package dev.oddsentry.service.mail;

import dev.oddsentry.service.layouts.ExtractFiles;
import jakarta.mail.BodyPart;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.Session;
import jakarta.mail.internet.ContentType;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeUtility;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Properties;

/** The parts of a stored message, for people to look at. */
public record MessageParts(String text, String html, List<String> attachments) {
    /** The policy with which a mail is shown in a browser: as it is, and without script, form or anything from outside. */
    public static final String CAN_DO_NOTHING =
            "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox; frame-ancestors 'self'";

    public static MessageParts of(byte[] mime) {
        var found = new Found();
        found.visit(mime);
        return new MessageParts(found.text, found.html, List.copyOf(found.attachments));
    }

    /** A picture of the HTML, by its Content-ID. */
    public record Picture(String name, byte[] bytes, String mediaType) {}

    /** What a message says, with its pictures apart. */
    public record Said(String text, String html, List<Picture> pictures) {}

    public static Said said(byte[] mime) {
        var pictures = new ArrayList<Picture>();
        var found = new Found() {
            @Override
            void picture(Picture picture) {
                pictures.add(picture);
            }
        };
        found.visit(mime);
        return new Said(found.text, found.html, pictures);
    }

    /** The attached files, in their order. */
    public static List<ExtractFiles.File> files(byte[] mime) {
        var files = new ArrayList<ExtractFiles.File>();
        try {
            visitFiles(new MimeMessage(Session.getInstance(new Properties()), new ByteArrayInputStream(mime)), files);
        } catch (MessagingException | IOException e) {
            throw new IllegalStateException("a stored message cannot be read", e);
        }
        return files;
    }

    private static void visitFiles(Part part, List<ExtractFiles.File> files) throws MessagingException, IOException {
        if (part.getFileName() != null) {
            try (var bytes = part.getInputStream()) {
                files.add(new ExtractFiles.File(
                        MimeUtility.decodeText(part.getFileName()), mediaType(part), bytes.readAllBytes()));
            }
        } else if (part.isMimeType("multipart/*") && part.getContent() instanceof Multipart several) {
            for (int i = 0; i < several.getCount(); i++) visitFiles(several.getBodyPart(i), files);
        }
    }

    private static String mediaType(Part part) throws MessagingException {
        return new ContentType(part.getContentType()).getBaseType();
    }

    private static class Found {
        String text = "";
        String html = "";
        private final List<String> attachments = new ArrayList<>();

        void visit(byte[] mime) {
            try {
                visit(new MimeMessage(Session.getInstance(new Properties()), new ByteArrayInputStream(mime)));
            } catch (MessagingException | IOException e) {
                throw new IllegalStateException("a stored message cannot be read", e);
            }
        }

        /** A browser has no parts of a mail to look into. */
        void picture(Picture picture) {
            String data = Base64.getEncoder().encodeToString(picture.bytes());
            html = html.replace(
                    "\"cid:" + picture.name() + "\"", "\"data:" + picture.mediaType() + ";base64," + data + "\"");
        }

        private static Picture read(Part part) throws MessagingException, IOException {
            try (var bytes = part.getInputStream()) {
                return new Picture(
                        part.getHeader("Content-ID")[0].replaceAll("[<>]", ""), bytes.readAllBytes(), mediaType(part));
            }
        }

        private void visit(Part part) throws MessagingException, IOException {
            if (part.getFileName() != null) attachments.add(MimeUtility.decodeText(part.getFileName()));
            else if (part.isMimeType("text/plain")) text = (String) part.getContent();
            else if (part.isMimeType("text/html")) html = (String) part.getContent();
            else if (part.isMimeType("image/*") && part.getHeader("Content-ID") != null) picture(read(part));
            else if (part.getContent() instanceof Multipart several) {
                for (int i = 0; i < several.getCount(); i++) {
                    BodyPart each = several.getBodyPart(i);
                    visit(each);
                }
            }
        }
    }
}
