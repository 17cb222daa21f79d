package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Extract;
import java.util.ArrayList;
import java.util.List;

/** The plain text of a mail: every row that the HTML says, and the subject. */
public final class TextMail {
    private TextMail() {}

    /** One line without controls, fit for a header. */
    public static String subject(Announcement said) {
        return Wording.subject(said);
    }

    public static String render(Announcement said) {
        var lines = new ArrayList<String>();
        lines.add(Wording.oneLine(said.title()));
        lines.add(Wording.slot(said.slot(), said.zone()));
        lines.add("");
        if (said.greeting() != null) {
            lines.add(Wording.oneLine(said.greeting()));
            lines.add("");
        }
        lines.add(Wording.headline(said.news().rows()));
        lines.add(Wording.context(said));
        lines.add("");
        said.news().rows().stream().limit(Announcement.MOST_ROWS).forEach(row -> row(said.news(), row, lines));
        if (!Wording.more(said).isEmpty()) lines.add(Wording.more(said));
        lines.add("");
        lines.add(Wording.seeAll(said.open()) + ": " + said.link());
        lines.add("");
        lines.add(Wording.because(said));
        lines.add("");
        lines.add(Wording.foot(said));
        return String.join("\n", lines) + "\n";
    }

    static void row(Extract extract, Extract.Row row, List<String> lines) {
        lines.add(title(extract, row));
        lines.add("    " + details(extract, row));
    }

    private static String title(Extract extract, Extract.Row row) {
        var parts = new ArrayList<String>();
        parts.add(Wording.severityAndKinds(row));
        for (int i = 0; i < Wording.titleColumns(extract); i++) {
            parts.add(marked(row, i, Wording.value(extract, row, i)) + Wording.was(extract, row, i));
        }
        return String.join("   ", parts);
    }

    /** Marked cells stand between asterisks, as plain text has no underline. */
    private static String details(Extract extract, Extract.Row row) {
        var parts = new ArrayList<String>();
        for (int i = Wording.titleColumns(extract); i < extract.columns().size(); i++) {
            String text = Wording.labelled(extract, row, i);
            parts.add(marked(row, i, text) + Wording.was(extract, row, i));
        }
        return String.join(", ", parts);
    }

    private static String marked(Extract.Row row, int index, String text) {
        return row.cells().get(index).marked() ? "*" + text + "*" : text;
    }
}
