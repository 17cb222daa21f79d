package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.RowsAs;

/** The HTML of a mail about one rule's news. */
public final class HtmlMail {
    private HtmlMail() {}

    public static String render(Announcement said) {
        return render(said, Signature.NONE);
    }

    public static String render(Announcement said, Signature signature) {
        var words = Wording.of(said);
        var page = new MailPage(words)
                .kicker(Wording.oneLine(said.title()) + " · " + words.slot(said.slot(), said.zone()));
        if (said.greeting() != null) page.greeting(Wording.oneLine(said.greeting()));
        page.headline(words.headline(said.news())).aside(words.context(said));
        if (said.own().opening() != null) page.paragraphs(said.own().opening());
        if (said.linkOnly()) page.paragraphs(words.phrases().of("behind"));
        else page.rows(said.news(), said.mostRows(), words.more(said));
        if (!said.standing().isEmpty() && !said.linkOnly())
            page.subheading(words.phrases().of("stillOpen.heading"))
                    .rows(said.news().with(said.standing()), said.mostRows(), words.moreOf(said.standing(), said));
        if (!said.whole().isEmpty() && !said.linkOnly())
            page.subheading(words.phrases().of("whole.heading"))
                    .rows(said.news().with(said.whole()), said.mostRows(), words.moreOf(said.whole(), said));
        for (var also : said.also())
            page.subheading(words.also(also)).rows(also.rows(), also.most(), words.moreOf(also));
        if (said.chart() != null) page.picture(Announcement.CHART, words.chart(said.chart()));
        if (said.own().closing() != null) page.paragraphs(said.own().closing());
        page.button(words.mainLink(said))
                .because(words.because(said))
                .signature(signature)
                .foot(words.foot(said), words.links(said));
        boolean rowsAreShown = !said.linkOnly() && said.news().arrangement().rowsAs() != RowsAs.FIGURES;
        String firstLine = rowsAreShown ? words.firstLine(said.news()) : words.headline(said.news());
        return page.html(words.subject(said), firstLine);
    }
}
