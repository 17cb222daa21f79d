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
        var page = new MailPage(words)
                .kicker(Wording.oneLine(said.title()) + " · " + words.slot(said.slot(), said.zone()))
                .headline(words.headline(said.rows()))
                .aside(context());
        for (var section : said.sections())
            page.subheading(Wording.oneLine(section.title()))
                    .summary(
                            words.headline(section.all()),
                            new Wording.Link(words.seeAll(section.open()), section.link()))
                    .rows(section.news(), Integer.MAX_VALUE, section.more().isEmpty() ? "" : more(section))
                    .because(because(section));
        if (!said.quiet().isEmpty()) page.remark(quiet());
        page.button(new Wording.Link(phrases.of("round.see"), said.link())).foot(foot(), List.of());
        var first = said.sections().getFirst().news();
        boolean rowsAreShown = !first.rows().isEmpty() && first.arrangement().rowsAs() != RowsAs.FIGURES;
        String firstLine = !rowsAreShown ? words.headline(said.rows()) : words.firstLine(first);
        return page.html(subject(), firstLine);
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
