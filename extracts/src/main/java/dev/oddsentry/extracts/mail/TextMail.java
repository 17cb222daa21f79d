package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Outline;
import dev.oddsentry.core.extract.RowsAs;
import java.util.ArrayList;
import java.util.List;

/** The plain text of a mail: every row that the HTML says, and the subject. */
public final class TextMail {
    private final Wording words;

    TextMail(Wording words) {
        this.words = words;
    }

    /** One line without controls, fit for a header. */
    public static String subject(Announcement said) {
        return Wording.of(said).subject(said);
    }

    public static String render(Announcement said) {
        return render(said, Signature.NONE);
    }

    public static String render(Announcement said, Signature signature) {
        return new TextMail(Wording.of(said)).write(said, signature);
    }

    private String write(Announcement said, Signature signature) {
        var lines = new ArrayList<String>();
        lines.add(Wording.oneLine(said.title()));
        lines.add(words.slot(said.slot(), said.zone()));
        lines.add("");
        if (said.greeting() != null) {
            lines.add(Wording.oneLine(said.greeting()));
            lines.add("");
        }
        lines.add(words.headline(said.news()));
        if (!words.context(said).isEmpty()) lines.add(words.context(said));
        lines.add("");
        if (said.own().opening() != null) {
            own(said.own().opening(), lines);
            lines.add("");
        }
        if (said.linkOnly()) lines.add(words.phrases().of("behind"));
        else rows(said.news(), said.mostRows(), lines);
        if (!said.linkOnly() && !words.more(said).isEmpty()) lines.add(words.more(said));
        if (!said.standing().isEmpty() && !said.linkOnly()) {
            lines.add("");
            lines.add("== " + words.phrases().of("stillOpen.heading") + " ==");
            lines.add("");
            rows(said.news().with(said.standing()), said.mostRows(), lines);
            if (!words.moreOf(said.standing(), said).isEmpty()) lines.add(words.moreOf(said.standing(), said));
        }
        if (!said.whole().isEmpty() && !said.linkOnly()) {
            lines.add("");
            lines.add("== " + words.phrases().of("whole.heading") + " ==");
            lines.add("");
            rows(said.news().with(said.whole()), said.mostRows(), lines);
            if (!words.moreOf(said.whole(), said).isEmpty()) lines.add(words.moreOf(said.whole(), said));
        }
        for (var also : said.also()) {
            lines.add("");
            lines.add("== " + words.also(also) + " ==");
            lines.add("");
            rows(also.rows(), also.most(), lines);
            if (!words.moreOf(also).isEmpty()) lines.add(words.moreOf(also));
        }
        if (said.chart() != null) {
            lines.add("");
            lines.add(words.chart(said.chart()));
        }
        if (said.own().closing() != null) {
            lines.add("");
            own(said.own().closing(), lines);
        }
        lines.add("");
        lines.add(words.mainLink(said).text() + ": " + words.mainLink(said).to());
        lines.add("");
        lines.add(words.because(said));
        lines.add("");
        signature(signature, lines);
        lines.add(words.foot(said));
        for (var link : words.links(said)) lines.add(link.text() + ": " + link.to());
        return String.join("\n", lines) + "\n";
    }

    private static void own(String text, List<String> lines) {
        text.lines().map(Wording::oneLine).forEach(lines::add);
    }

    static void signature(Signature signature, List<String> lines) {
        if (signature.text().isBlank()) return;
        signature.text().strip().lines().map(Wording::oneLine).forEach(lines::add);
        lines.add("");
    }

    void rows(Extract extract, int most, List<String> lines) {
        if (extract.arrangement().rowsAs() == RowsAs.FIGURES) {
            lines.addAll(words.rows().figures(extract));
            return;
        }
        for (var line : Outline.of(extract, most)) {
            switch (line) {
                case Outline.RowLine(var row) -> {
                    if (row.severity() == null) {
                        lines.add(words.rows().inOneLine(extract, row));
                        links(extract, row, lines);
                        continue;
                    }
                    lines.add(title(extract, row));
                    String details = details(extract, row);
                    if (!details.isEmpty()) lines.add("    " + details);
                    links(extract, row, lines);
                    if (row.link() != null) lines.add("    " + row.link());
                }
                case Outline.GroupLine(var values, int rows) ->
                    lines.add("-- " + words.rows().group(extract, values) + ": " + rows + " --");
                case Outline.TotalLine total ->
                    lines.add("    = " + words.rows().total(extract, total));
            }
        }
    }

    /** {@code Sailing: https://records.example/sailings/12277}, unless the value is the address. */
    private static void links(Extract extract, Extract.Row row, List<String> lines) {
        for (int i = 0; i < row.cells().size(); i++) {
            var cell = row.cells().get(i);
            if (cell.link() != null && !cell.link().equals(cell.value()))
                lines.add("    " + extract.columns().get(i).label() + ": " + cell.link());
        }
    }

    private String title(Extract extract, Extract.Row row) {
        var parts = new ArrayList<String>();
        parts.add(words.rows().severityAndKinds(extract, row));
        for (int i = 0; i < RowWords.titleColumns(extract); i++) {
            parts.add(marked(row, i, words.rows().value(extract, row, i))
                    + words.rows().was(extract, row, i));
        }
        return String.join("   ", parts);
    }

    /** Marked cells stand between asterisks, as plain text has no underline. */
    private String details(Extract extract, Extract.Row row) {
        var parts = new ArrayList<String>();
        for (int i = RowWords.titleColumns(extract); i < extract.columns().size(); i++)
            parts.add(marked(row, i, words.rows().labelled(extract, row, i))
                    + words.rows().was(extract, row, i));
        return String.join(", ", parts);
    }

    private static String marked(Extract.Row row, int index, String text) {
        return row.cells().get(index).marked() ? "*" + text + "*" : text;
    }
}
