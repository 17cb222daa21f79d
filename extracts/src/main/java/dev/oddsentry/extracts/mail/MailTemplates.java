package dev.oddsentry.extracts.mail;

import com.samskivert.mustache.Escapers;
import com.samskivert.mustache.Mustache;
import com.samskivert.mustache.Template;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Objects;

/** The HTML templates of mails, compiled; every value in them is escaped. */
final class MailTemplates {
    /** The library's own also escapes the {@code =} of links, which some programs show as it is written. */
    private static final Mustache.Escaper HTML = Escapers.simple(new String[][] {
        {"&", "&amp;"},
        {"<", "&lt;"},
        {">", "&gt;"},
        {"\"", "&quot;"},
        {"'", "&#39;"}
    });

    private MailTemplates() {}

    /** @param name of a file beside this class */
    static Template of(String name) {
        try (var in = new InputStreamReader(
                Objects.requireNonNull(MailTemplates.class.getResourceAsStream(name)), StandardCharsets.UTF_8)) {
            return Mustache.compiler()
                    .withEscaper(HTML)
                    .emptyStringIsFalse(true)
                    .defaultValue("")
                    .compile(in);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
