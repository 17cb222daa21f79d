package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.RowsAs;
import dev.oddsentry.extracts.words.Phrases;
import java.util.ArrayList;
import java.util.List;

/** A round-up as the subject, the plain text and the HTML of a mail: rule by rule, every row in both. */
public final class RoundUpMail {
    private final RoundUp said;
    private final Wording words;
    private final Phrases phrases;

    private RoundUpMail(RoundUp said) {
        this.said = said;
        this.words = Wording.of(said);
        this.phrases = words.phrases();
    }

    /** One line without controls, fit for a header. */
    public static String subject(RoundUp said) {
        return new RoundUpMail(said).subject();
    }

    public static String text(RoundUp said) {
        return new RoundUpMail(said).text();
    }

    public static String html(RoundUp said) {
        return new RoundUpMail(said).html();
    }

    private String subject() {
        return words.counts(said.rows()) + ": " + Wording.oneLine(said.title())
                + (said.atOnce() ? phrases.of("round.atOnce.subject") : "");
    }

    private String text() {
        var lines = new ArrayList<String>();
        lines.add(Wording.oneLine(said.title()));
        lines.add(words.slot(said.slot(), said.zone()));
        lines.add("");
        lines.add(words.headline(said.rows()));
        lines.add(context());
        for (var section : said.sections()) {
            lines.add("");
            lines.add("== " + Wording.oneLine(section.title()) + ": " + words.headline(section.all()) + " ==");
            lines.add("");
            new TextMail(words).rows(section.news(), Integer.MAX_VALUE, lines);
            if (!section.more().isEmpty()) lines.add(more(section));
            lines.add(words.seeAll(section.open()) + ": " + section.link());
            lines.add("");
            lines.add(because(section));
        }
        lines.add("");
        if (!said.quiet().isEmpty()) lines.add(quiet());
        lines.add(foot());
        return String.join("\n", lines) + "\n";
    }

    private String html() {
        var html = new HtmlParts(words);
        var body = new StringBuilder(8192);
        body.append(html.kicker(Wording.oneLine(said.title()) + " · " + words.slot(said.slot(), said.zone())))
                .append(html.headline(words.headline(said.rows())))
                .append(html.aside(context()));
        for (var section : said.sections()) {
            body.append(html.subheading(Wording.oneLine(section.title())))
                    .append(HtmlParts.div(
                            "font-size:14px;color:" + HtmlParts.SLATE,
                            HtmlParts.escape(words.headline(section.all())) + " · <a href=\""
                                    + HtmlParts.escape(section.link()) + "\" style=\"color:" + HtmlParts.INK + "\">"
                                    + HtmlParts.escape(words.seeAll(section.open())) + "</a>"))
                    .append(html.findings(
                            section.news(), Integer.MAX_VALUE, section.more().isEmpty() ? "" : more(section)))
                    .append(HtmlParts.div(
                            "padding:6px 0 2px 12px;margin-top:8px;border-left:3px solid #2f7d6b;font-size:14px;color:"
                                    + HtmlParts.SLATE,
                            HtmlParts.escape(because(section))));
        }
        if (!said.quiet().isEmpty())
            body.append(HtmlParts.div("margin-top:18px;color:" + HtmlParts.SLATE, HtmlParts.escape(quiet())));
        body.append(html.button(phrases.of("round.see"), said.link())).append(html.foot(foot(), List.of()));
        var first = said.sections().getFirst().news();
        boolean rowsAreShown = !first.rows().isEmpty() && first.arrangement().rowsAs() != RowsAs.FIGURES;
        String firstLine = !rowsAreShown ? words.headline(said.rows()) : words.firstLine(first);
        return html.page(subject(), firstLine, body.toString());
    }

    private String context() {
        if (said.atOnce()) return phrases.of("round.atOnce");
        int rules = said.sections().size();
        return said.since() == null
                ? phrases.of("round.first", rules)
                : phrases.of("round.since", rules, words.longSlot(said.since(), said.zone()));
    }

    private String more(RoundUp.Section section) {
        return phrases.of("round.more", section.more().size());
    }

    private String because(RoundUp.Section section) {
        return phrases.of("round.because", Wording.oneLine(section.because()));
    }

    private String quiet() {
        return phrases.of("round.quiet", Wording.oneLine(String.join(", ", said.quiet())));
    }

    private String foot() {
        return (said.next() == null ? "" : phrases.of("round.next", words.longSlot(said.next(), said.zone())) + " ")
                + phrases.of("owner", Wording.oneLine(said.owner()));
    }
}
