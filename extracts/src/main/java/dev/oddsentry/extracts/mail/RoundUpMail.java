package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Extract;
import java.util.ArrayList;

/** A round-up as the subject, the plain text and the HTML of a mail: rule by rule, every row in both. */
public final class RoundUpMail {
    private RoundUpMail() {}

    /** One line without controls, fit for a header. */
    public static String subject(RoundUp said) {
        return Wording.counts(said.rows()) + ": " + Wording.oneLine(said.title()) + (said.atOnce() ? ", at once" : "");
    }

    public static String text(RoundUp said) {
        var lines = new ArrayList<String>();
        lines.add(Wording.oneLine(said.title()));
        lines.add(Wording.slot(said.slot(), said.zone()));
        lines.add("");
        lines.add(Wording.headline(said.rows()));
        lines.add(context(said));
        for (var section : said.sections()) {
            lines.add("");
            lines.add("== " + Wording.oneLine(section.title()) + ": " + news(section) + " ==");
            lines.add("");
            for (var row : section.news().rows()) TextMail.row(section.news(), row, lines);
            if (!section.more().isEmpty()) lines.add(more(section));
            lines.add(Wording.seeAll(section.open()) + ": " + section.link());
            lines.add("");
            lines.add(because(section));
        }
        lines.add("");
        if (!said.quiet().isEmpty()) lines.add(quiet(said));
        lines.add(foot(said));
        return String.join("\n", lines) + "\n";
    }

    public static String html(RoundUp said) {
        var body = new StringBuilder(8192);
        body.append(HtmlParts.kicker(Wording.oneLine(said.title()) + " · " + Wording.slot(said.slot(), said.zone())))
                .append(HtmlParts.headline(Wording.headline(said.rows())))
                .append(HtmlParts.aside(context(said)));
        for (var section : said.sections()) {
            body.append("<h2 style=\"font-size:17px;line-height:1.3;font-weight:700;margin:22px 0 0\">")
                    .append(HtmlParts.escape(Wording.oneLine(section.title())))
                    .append("</h2>")
                    .append(HtmlParts.div(
                            "font-size:14px;color:" + HtmlParts.SLATE,
                            HtmlParts.escape(news(section)) + " · <a href=\"" + HtmlParts.escape(section.link())
                                    + "\" style=\"color:" + HtmlParts.INK + "\">"
                                    + HtmlParts.escape(Wording.seeAll(section.open())) + "</a>"))
                    .append(HtmlParts.findings(
                            section.news(),
                            section.news().rows(),
                            !section.more().isEmpty() ? more(section) : ""))
                    .append(HtmlParts.div(
                            "padding:6px 0 2px 12px;margin-top:8px;border-left:3px solid #2f7d6b;font-size:14px;color:"
                                    + HtmlParts.SLATE,
                            HtmlParts.escape(because(section))));
        }
        if (!said.quiet().isEmpty())
            body.append(HtmlParts.div("margin-top:18px;color:" + HtmlParts.SLATE, HtmlParts.escape(quiet(said))));
        body.append(HtmlParts.button("See what is open", said.link())).append(HtmlParts.foot(foot(said)));
        Extract first = said.sections().getFirst().news();
        return HtmlParts.page(subject(said), Wording.firstLine(first), body.toString());
    }

    private static String news(RoundUp.Section section) {
        return Wording.headline(section.all());
    }

    private static String context(RoundUp said) {
        if (said.atOnce()) return "This could not wait for the next round-up, which says the rest.";
        int rules = said.sections().size();
        String from = "From " + (rules == 1 ? "one rule" : rules + " rules");
        return said.since() == null
                ? from + "; this is the first round-up."
                : from + " since the round-up of " + Wording.longSlot(said.since(), said.zone()) + ".";
    }

    private static String more(RoundUp.Section section) {
        return "and " + section.more().size() + " more behind the link";
    }

    private static String because(RoundUp.Section section) {
        return "Told of, " + Wording.oneLine(section.because()) + ".";
    }

    private static String quiet(RoundUp said) {
        return "Nothing new in: " + Wording.oneLine(String.join(", ", said.quiet())) + ".";
    }

    private static String foot(RoundUp said) {
        return (said.next() == null ? "" : "Next round-up: " + Wording.longSlot(said.next(), said.zone()) + ". ")
                + "Owner: " + Wording.oneLine(said.owner()) + ".";
    }
}
