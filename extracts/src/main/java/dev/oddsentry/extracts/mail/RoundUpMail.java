package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.RowsAs;
import dev.oddsentry.extracts.words.Phrases;
import java.util.ArrayList;

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
        return text(said, Signature.NONE);
    }

    public static String text(RoundUp said, Signature signature) {
        return new RoundUpMail(said).text(signature);
    }

    public static String html(RoundUp said) {
        return html(said, Signature.NONE);
    }

    public static String html(RoundUp said, Signature signature) {
        return new RoundUpMail(said).html(signature);
    }

    private String subject() {
        if (said.isStatementAlone())
            return phrases.of(
                    said.incomplete() == 0 ? "statement.subject.complete" : "statement.subject.incomplete",
                    Wording.oneLine(said.title()));
        return words.counts(said.rows(), words.usualSeverities()) + ": " + Wording.oneLine(said.title())
                + (said.atOnce() ? phrases.of("round.atOnce.subject") : "");
    }

    private String text(Signature signature) {
        var lines = new ArrayList<String>();
        lines.add(Wording.oneLine(said.title()));
        lines.add(words.slot(said.slot(), said.zone()));
        lines.add("");
        lines.add(headline());
        if (!said.isStatementAlone()) lines.add(context());
        for (var section : said.sections()) {
            lines.add("");
            lines.add("== " + Wording.oneLine(section.title()) + ": "
                    + words.headline(section.all(), words.rows().severities(section.news())) + " ==");
            lines.add("");
            new TextMail(words).rows(section.news(), Integer.MAX_VALUE, lines);
            if (!section.more().isEmpty()) lines.add(more(section));
            lines.add(words.seeAll(section.open()) + ": " + section.link());
            lines.add("");
            lines.add(because(section));
        }
        if (!said.statements().isEmpty()) {
            lines.add("");
            lines.add("== " + phrases.of("statement.title") + " ==");
            lines.add(period());
            for (var statement : said.statements()) {
                lines.add("");
                lines.add(Wording.oneLine(statement.title()));
                StatementWords.of(statement, said.language()).forEach(sentence -> lines.add("  " + sentence));
            }
        }
        lines.add("");
        if (!said.quiet().isEmpty()) lines.add(quiet());
        TextMail.signature(signature, lines);
        lines.add(foot());
        for (var link : words.readerLinks(said.links().leave(), said.links().own()))
            lines.add(link.text() + ": " + link.to());
        return String.join("\n", lines) + "\n";
    }

    private String html(Signature signature) {
        var page = new MailPage(words)
                .kicker(Wording.oneLine(said.title()) + " · " + words.slot(said.slot(), said.zone()))
                .headline(headline())
                .aside(said.isStatementAlone() ? "" : context());
        for (var section : said.sections())
            page.subheading(Wording.oneLine(section.title()))
                    .summary(
                            words.headline(section.all(), words.rows().severities(section.news())),
                            new Wording.Link(words.seeAll(section.open()), section.link()))
                    .rows(section.news(), Integer.MAX_VALUE, section.more().isEmpty() ? "" : more(section))
                    .because(because(section));
        if (!said.statements().isEmpty()) {
            if (!said.isStatementAlone()) page.subheading(phrases.of("statement.title"));
            page.aside(period());
            for (var statement : said.statements())
                page.subheading(Wording.oneLine(statement.title()))
                        .remark(String.join(" ", StatementWords.of(statement, said.language())));
        }
        if (!said.quiet().isEmpty()) page.remark(quiet());
        page.button(new Wording.Link(phrases.of("round.see"), said.links().day()))
                .signature(signature)
                .foot(
                        foot(),
                        words.readerLinks(said.links().leave(), said.links().own()));
        return page.html(subject(), firstLine());
    }

    private String headline() {
        if (!said.isStatementAlone()) return words.headline(said.rows(), words.usualSeverities());
        return said.incomplete() == 0
                ? phrases.of("statement.headline.complete")
                : phrases.of("statement.headline.incomplete", said.incomplete());
    }

    private String firstLine() {
        if (said.isStatementAlone()) return headline();
        var first = said.sections().getFirst().news();
        boolean rowsAreShown = !first.rows().isEmpty() && first.arrangement().rowsAs() != RowsAs.FIGURES;
        return rowsAreShown ? words.firstLine(first) : headline();
    }

    private String period() {
        var any = said.statements().getFirst();
        return phrases.of(
                "statement.period", words.longSlot(any.from(), said.zone()), words.longSlot(any.to(), said.zone()));
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
