package dev.oddsentry.extracts.mail;

import com.samskivert.mustache.Template;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.RowsAs;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * The HTML of a mail, put together from blocks in the order in which they are added. Styles are inline, since many readers drop style
 * blocks; nothing is loaded from outside; the template escapes every text.
 */
final class MailPage {
    private static final Template TEMPLATE = MailTemplates.of("page.mustache");
    private static final int WIDE = 760;
    private static final int USUAL = 620;

    private final Wording words;
    private final List<Map<String, Object>> blocks = new ArrayList<>();
    private boolean hasTable;

    MailPage(Wording words) {
        this.words = words;
    }

    private MailPage add(String kind, Object block) {
        blocks.add(Map.of(kind, block));
        return this;
    }

    MailPage kicker(String text) {
        return add("kicker", text);
    }

    MailPage greeting(String text) {
        return add("greeting", text);
    }

    MailPage headline(String text) {
        return add("headline", text);
    }

    MailPage subheading(String text) {
        return add("subheading", text);
    }

    /** What stands below a headline; an empty text is left out. */
    MailPage aside(String text) {
        return text.isEmpty() ? this : add("aside", text);
    }

    /** What a person wrote, its lines kept. */
    MailPage paragraphs(String text) {
        return add("paragraphs", text.strip());
    }

    MailPage because(String text) {
        return add("because", text);
    }

    /** A remark in smaller letters, with a link behind it. */
    MailPage summary(String text, Wording.Link link) {
        return add("summary", Map.of("text", text, "link", link));
    }

    MailPage remark(String text) {
        return add("remark", text);
    }

    /** How the team's messages end; nothing if the team has no such words. */
    MailPage signature(Signature signature) {
        return signature.isEmpty()
                ? this
                : add(
                        "signature",
                        Map.of(
                                "text", signature.text().strip(),
                                "team", signature.team(),
                                "logo", signature.hasLogo() ? Map.of("name", Signature.LOGO) : false));
    }

    MailPage foot(String text, List<Wording.Link> links) {
        var numbered = new ArrayList<Map<String, Object>>();
        for (var link : links) numbered.add(Map.of("link", link, "first", numbered.isEmpty()));
        return add("foot", Map.of("text", text, "links", numbered));
    }

    /** @param name the Content-ID of the part that holds it */
    MailPage picture(String name, String alternative) {
        return add("picture", Map.of("name", name, "alternative", alternative));
    }

    /** What another mail says, as {@link CollectionMail#said} has taken it from there. */
    MailPage collected(String html) {
        hasTable = true;
        return add("collected", html);
    }

    MailPage button(Wording.Link link) {
        return add("button", link);
    }

    /**
     * @param most how many rows have lines; all are counted
     * @param more what is below for the rows that do not; empty for nothing
     */
    MailPage rows(Extract extract, int most, String more) {
        if (extract.rows().isEmpty() && more.isEmpty()) return this;
        var table = new MailTable(words, extract);
        var as = extract.arrangement().rowsAs();
        if (as == null) as = table.fits(most) ? RowsAs.TABLE : RowsAs.LIST;
        return switch (as) {
            case TABLE -> {
                hasTable = true;
                yield add("table", table.html(most, more));
            }
            case LIST -> add("list", MailList.of(words.rows(), extract, most, more));
            case FIGURES -> add("figures", words.rows().figures(extract));
        };
    }

    /** @param firstLine hidden, beside the subject in an inbox */
    String html(String subject, String firstLine) {
        return TEMPLATE.execute(Map.of(
                "language",
                words.phrases().language().code(),
                "subject",
                subject,
                "firstLine",
                firstLine,
                "narrow",
                hasTable ? MailTable.NARROW : "",
                "width",
                hasTable ? WIDE : USUAL,
                "rowLink",
                words.phrases().of("row.link"),
                "blocks",
                blocks));
    }
}
