package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.RowsAs;

/** The HTML of a mail about one rule's news. */
public final class HtmlMail {
    private HtmlMail() {}

    public static String render(Announcement said) {
        var words = Wording.of(said);
        var html = new HtmlParts(words);
        var body = new StringBuilder(4096);
        body.append(html.kicker(Wording.oneLine(said.title()) + " · " + words.slot(said.slot(), said.zone())));
        if (said.greeting() != null)
            body.append(HtmlParts.div("margin-top:12px", HtmlParts.escape(Wording.oneLine(said.greeting()))));
        body.append(html.headline(words.headline(said.news().rows()))).append(html.aside(words.context(said)));
        if (said.own().opening() != null) body.append(html.paragraphs(said.own().opening()));
        if (said.linkOnly()) body.append(html.paragraphs(words.phrases().of("behind")));
        else body.append(html.findings(said.news(), said.mostRows(), words.more(said)));
        if (!said.standing().isEmpty() && !said.linkOnly())
            body.append(html.subheading(words.phrases().of("stillOpen.heading")))
                    .append(html.findings(
                            said.news().with(said.standing()), said.mostRows(), words.moreStanding(said)));
        for (var also : said.also())
            body.append(html.subheading(words.also(also)))
                    .append(html.rows(also.rows(), also.most(), words.moreOf(also)));
        if (said.chart() != null) body.append(html.picture(Announcement.CHART, words.chart(said.chart())));
        var main = words.mainLink(said);
        body.append(html.button(main.text(), main.to()))
                .append(html.because(words.because(said)))
                .append(html.foot(words.foot(said), words.links(said)));
        boolean rowsAreShown = !said.linkOnly() && said.news().arrangement().rowsAs() != RowsAs.FIGURES;
        String firstLine = !rowsAreShown ? words.headline(said.news().rows()) : words.firstLine(said.news());
        return html.page(words.subject(said), firstLine, body.toString());
    }
}
