package dev.oddsentry.service.mail;

import dev.oddsentry.core.extract.Language;
import dev.oddsentry.extracts.mail.LateWords;
import java.time.Instant;
import java.time.ZoneId;
import org.springframework.web.util.HtmlUtils;

/** The first line of a mail that comes late: of when it is. */
public final class LateNote {
    private LateNote() {}

    public static String words(Language language, Instant slot, ZoneId zone) {
        return LateWords.of(language, slot, zone);
    }

    /** The same message with that line above its text and its HTML. */
    public static byte[] into(byte[] mime, String words) {
        return MessageTexts.changed(
                mime,
                text -> words + "\n\n" + text,
                html -> {
                    int start = html.indexOf('>', html.indexOf("<body")) + 1;
                    return html.substring(0, start)
                            + "<div style=\"max-width:620px;margin:0 auto;padding:10px 18px;background:#fdf3df;color:#22303c\">"
                            + HtmlUtils.htmlEscape(words, "UTF-8") + "</div>" + html.substring(start);
                },
                _ -> {});
    }
}
