package dev.oddsentry.extracts.mail;

/** The HTML of a mail about one rule's news. */
public final class HtmlMail {
    private HtmlMail() {}

    public static String render(Announcement said) {
        var body = new StringBuilder(4096);
        body.append(HtmlParts.kicker(Wording.oneLine(said.title()) + " · " + Wording.slot(said.slot(), said.zone())));
        if (said.greeting() != null)
            body.append(HtmlParts.div("margin-top:12px", HtmlParts.escape(Wording.oneLine(said.greeting()))));
        var rows = said.news().rows();
        body.append(HtmlParts.headline(Wording.headline(rows)))
                .append(HtmlParts.aside(Wording.context(said)))
                .append(HtmlParts.findings(
                        said.news(), rows.stream().limit(Announcement.MOST_ROWS).toList(), Wording.more(said)))
                .append(HtmlParts.button(Wording.seeAll(said.open()), said.link()))
                .append(HtmlParts.because(Wording.because(said)))
                .append(HtmlParts.foot(Wording.foot(said)));
        return HtmlParts.page(Wording.subject(said), Wording.firstLine(said.news()), body.toString());
    }
}
