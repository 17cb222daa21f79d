package dev.oddsentry.service.mail;

import dev.oddsentry.core.extract.Language;
import dev.oddsentry.extracts.pack.ZipPack;
import dev.oddsentry.extracts.words.Phrases;
import dev.oddsentry.service.layouts.ExtractFiles;
import jakarta.activation.DataHandler;
import jakarta.mail.BodyPart;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.internet.MimeBodyPart;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeUtility;
import jakarta.mail.util.ByteArrayDataSource;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import org.springframework.web.util.HtmlUtils;

/**
 * A stored message that was too large for the mail server, made smaller: its files packed, then left out of it and kept behind the link to the report. Its
 * Message-ID stays.
 *
 * @param kept files that it no longer carries
 */
public record SmallerMessage(byte[] mime, List<ExtractFiles.File> kept) {
    private static final String ZIP = "application/zip";
    private static final Pattern LANGUAGE = Pattern.compile("<html[^>]* lang=\"([a-z]{2})\"");

    /**
     * @param link where the report is kept
     * @return empty where it has no files, so that nothing can be taken from it
     */
    public static Optional<SmallerMessage> of(byte[] mime, Instant slot, String link) {
        var files = MessageParts.files(mime);
        if (files.isEmpty()) return Optional.empty();
        boolean isPacked = files.stream().allMatch(file -> file.mediaType().equals(ZIP));
        return Optional.of(isPacked ? withoutFiles(mime, files, link) : packed(mime, files, slot, link));
    }

    private static SmallerMessage packed(byte[] mime, List<ExtractFiles.File> files, Instant slot, String link) {
        try {
            byte[] zip = ZipPack.of(
                    files.stream()
                            .map(file -> new ZipPack.Entry(file.name(), file.bytes()))
                            .toList(),
                    slot,
                    null);
            long before = files.stream().mapToLong(file -> file.bytes().length).sum();
            // What is packed already, such as a workbook, hardly shrinks.
            if (zip.length > before * 9 / 10) return withoutFiles(mime, files, link);
            String name = files.getFirst().name().replaceFirst("\\.[a-z]{2,5}$", "") + ".zip";
            return new SmallerMessage(changed(mime, "", Optional.of(new ExtractFiles.File(name, ZIP, zip))), List.of());
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
    }

    private static SmallerMessage withoutFiles(byte[] mime, List<ExtractFiles.File> files, String link) {
        var names = files.stream().map(ExtractFiles.File::name).toList();
        String words = Phrases.in(language(mime)).of("tooGreat", String.join(", ", names)) + " " + link;
        return new SmallerMessage(changed(mime, words, Optional.empty()), files);
    }

    private static Language language(byte[] mime) {
        var found = LANGUAGE.matcher(MessageParts.of(mime).html());
        if (!found.find()) return Language.EN;
        for (var language : Language.values()) if (language.code().equals(found.group(1))) return language;
        return Language.EN;
    }

    /** Puts {@code words} at the end of its texts, and {@code file} in place of its files. */
    private static byte[] changed(byte[] mime, String words, Optional<ExtractFiles.File> file) {
        return MessageTexts.changed(
                mime,
                text -> words.isEmpty() ? text : text + "\n" + words + "\n",
                html -> words.isEmpty() ? html : atTheEnd(html, words),
                message -> replaceFiles(message, file));
    }

    private static String atTheEnd(String html, String words) {
        String line = "<div style=\"max-width:620px;margin:0 auto;padding:10px 18px\">"
                + HtmlUtils.htmlEscape(words, StandardCharsets.UTF_8.name()) + "</div>";
        int end = html.lastIndexOf("</body>");
        return end < 0 ? html + line : html.substring(0, end) + line + html.substring(end);
    }

    private static void replaceFiles(MimeMessage message, Optional<ExtractFiles.File> file) throws MessagingException {
        try {
            if (!(message.getContent() instanceof Multipart parts)) return;
            for (int i = parts.getCount() - 1; i >= 0; i--) {
                BodyPart part = parts.getBodyPart(i);
                if (part.getFileName() != null) parts.removeBodyPart(i);
            }
            if (file.isPresent()) {
                var attachment = new MimeBodyPart();
                attachment.setDataHandler(new DataHandler(
                        new ByteArrayDataSource(file.get().bytes(), file.get().mediaType())));
                attachment.setFileName(MimeUtility.encodeText(file.get().name(), StandardCharsets.UTF_8.name(), null));
                parts.addBodyPart(attachment);
            }
            message.setContent(parts);
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
    }
}
