package dev.oddsentry.extracts.mail;

import com.samskivert.mustache.Template;
import dev.oddsentry.core.extract.CellWords;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Outline;
import dev.oddsentry.core.extract.Total;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.extracts.words.SeverityWords;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * Rows of a mail as a table with its headings once; on a narrow screen each row is a block with labels. Attributes in place of styles keep
 * each row short: mail programs cut a long mail, and servers refuse one.
 */
final class MailTable {
    /** For the head of the page: on a narrow screen rows become blocks. A program that drops it shows the table. */
    static final String NARROW = """
            @media (max-width:560px){.t thead{display:none!important}\
            .t tr.r{display:block!important;padding:10px 0!important;border-bottom:1px solid #e3ded4!important}\
            .t tr.r td,.t tr.s td{display:inline-block!important;border:0!important;padding:0 12px 2px 0!important;text-align:left!important;width:auto!important}\
            .t td[data-l]::before{content:attr(data-l) " ";color:#5d6b78;font-weight:400}\
            .t tr.r td.n{display:block!important;font-size:16px}.t tr.g,.t tr.g td{display:block!important}\
            .t tr.s{display:block!important;padding:6px 0 8px!important;border-bottom:2px solid #22303c!important}}""";

    private static final int MOST_COLUMNS = 8;
    /** Characters that a line of the mail has room for, and what each column takes beside its text. */
    private static final int ROOM = 92;

    private static final int BESIDE = 2;
    /** A longer text breaks into lines within its column. */
    private static final int BREAKS_FROM = 22;

    private static final int LONGEST = 70;
    private static final Template TEMPLATE = MailTemplates.of("table.mustache");

    private final Wording words;
    private final Extract extract;
    private final List<Integer> shown;
    private final boolean kindsDiffer;
    private final SeverityWords severities;

    MailTable(Wording words, Extract extract) {
        this.words = words;
        this.extract = extract;
        this.shown = shown(extract);
        this.severities = words.rows().severities(extract);
        this.kindsDiffer = extract.rows().stream()
                        .filter(row -> row.severity() != null)
                        .map(Extract.Row::kinds)
                        .distinct()
                        .limit(2)
                        .count()
                > 1;
    }

    /** The columns beside those that are headings of groups. */
    private static List<Integer> shown(Extract extract) {
        var groupBy = Set.copyOf(extract.arrangement().groupBy());
        var others = IntStream.range(0, extract.columns().size())
                .filter(column -> !groupBy.contains(column))
                .boxed()
                .toList();
        return others.isEmpty()
                ? IntStream.range(0, extract.columns().size()).boxed().toList()
                : others;
    }

    /** @param most how many of the rows are shown */
    boolean fits(int most) {
        if (shown.isEmpty() || shown.size() > MOST_COLUMNS) return false;
        var rows = extract.rows().subList(0, Math.min(most, extract.rows().size()));
        for (var row : rows) for (int column : shown) if (length(row, column) > LONGEST) return false;
        return width(rows) <= ROOM;
    }

    /** In characters, with longer texts in lines of their own. */
    private int width(List<Extract.Row> rows) {
        int severity = rows.stream()
                .mapToInt(row -> Math.max(longestWord(severity(row)), longestWord(since(row))))
                .max()
                .orElse(0);
        int width = plain() ? 0 : severity + BESIDE;
        for (int column : shown) {
            int widest = Math.min(extract.columns().get(column).heading().length(), BREAKS_FROM / 2);
            for (var row : rows) widest = Math.max(widest, Math.min(length(row, column), BREAKS_FROM));
            width += widest + BESIDE;
        }
        return width;
    }

    /** Nothing evaluated the rows, so there is no severity to show. */
    private boolean plain() {
        return extract.arrangement().plain();
    }

    private static int longestWord(String text) {
        return Arrays.stream(text.split(" ", -1)).mapToInt(String::length).max().orElse(0);
    }

    private int length(Extract.Row row, int column) {
        return text(row, column).length()
                + words.rows().bareWas(extract, row, column).length();
    }

    record Heading(String text, String align, String left) {}

    record Cell(
            String text,
            String was,
            @Nullable String label,
            boolean right,
            String left,
            boolean first,
            boolean marked,
            boolean quiet,
            boolean unbroken,
            boolean longWord,
            @Nullable String link,
            String sign,
            String colour) {}

    /**
     * @param severity null for a table without severities
     * @param since when the finding opened; empty for what begins with this report
     * @param details the finding's page, if the first cell leads elsewhere; null otherwise
     */
    record RowLine(
            List<Cell> cells,
            @Nullable String severity,
            String since,
            String colour,
            @Nullable String details) {
        public boolean hasSeverity() {
            return severity != null;
        }
    }

    record GroupLine(String text, int columns) {}

    record TotalLine(String text, int span, String line, List<TotalCell> cells) {}

    record TotalCell(String text, @Nullable String label) {}

    /** One of the three. */
    record Line(
            @Nullable GroupLine group,
            @Nullable RowLine row,
            @Nullable TotalLine total) {}

    record Page(
            List<Heading> headings,
            List<Line> lines,
            int columns,
            @Nullable String more) {}

    /**
     * @param most how many rows have lines; all are counted
     * @param more what is below for the rows that do not; empty for nothing
     */
    String html(int most, String more) {
        int columns = shown.size() + (plain() ? 0 : 1);
        var headings = new ArrayList<Heading>();
        for (int column : shown)
            headings.add(new Heading(
                    extract.columns().get(column).heading(), isRight(column) ? "right" : "left", left(column)));
        if (!plain()) headings.add(new Heading(words.phrases().of("file.severity"), "left", "8px"));
        var lines = new ArrayList<Line>();
        for (var line : Outline.of(extract, most))
            lines.add(
                    switch (line) {
                        case Outline.RowLine(var row) -> new Line(null, row(row), null);
                        case Outline.GroupLine(var values, int rows) ->
                            new Line(new GroupLine(group(values, rows), columns), null, null);
                        case Outline.TotalLine total -> new Line(null, null, total(total));
                    });
        return TEMPLATE.execute(new Page(headings, lines, columns, more.isEmpty() ? null : more));
    }

    private String group(List<@Nullable Object> values, int rows) {
        String name = words.rows().group(extract, values);
        return extract.hasTotals() ? name : name + ": " + rows;
    }

    private RowLine row(Extract.Row row) {
        var cells = new ArrayList<Cell>();
        for (int column : shown) {
            var cell = row.cells().get(column);
            boolean first = column == shown.getFirst();
            cells.add(new Cell(
                    text(row, column),
                    words.rows().bareWas(extract, row, column),
                    first ? null : extract.columns().get(column).heading(),
                    isRight(column),
                    left(column),
                    first,
                    cell.marked(),
                    cell.value() == null,
                    // A name, a number or a time stays on one line; a longer text breaks between words.
                    !mayBreak(row, column),
                    longestWord(text(row, column)) > BREAKS_FROM,
                    cell.link() != null ? cell.link() : first ? row.link() : null,
                    first && row.severity() != null ? severities.sign(row.severity()) : "",
                    severities.colour(row)));
        }
        boolean elsewhere = row.cells().get(shown.getFirst()).link() != null;
        return new RowLine(
                cells,
                plain() ? null : severity(row),
                plain() ? "" : since(row),
                severities.colour(row),
                elsewhere && row.severity() != null ? row.link() : null);
    }

    private String severity(Extract.Row row) {
        if (row.severity() == null) return "";
        String severity = severities.word(row.severity());
        return severity + (kindsDiffer ? ", " + words.rows().kinds(row) : "");
    }

    /** Below the severity: {@code open since Fri 20 Nov 17:35}, whose time stays on one line. */
    private String since(Extract.Row row) {
        if (row.severity() == null) return "";
        return words.rows().lasted(extract, row, kindsDiffer, true).replaceFirst("^[, ]+", "");
    }

    /** A text between its words, and a number before what it was; a number or a time itself never. */
    private boolean mayBreak(Extract.Row row, int column) {
        var of = extract.columns().get(column);
        return text(row, column).length() >= BREAKS_FROM
                || column != shown.getFirst()
                        && (of.type() == Type.TEXT
                                || of.hasWords()
                                || !words.rows().bareWas(extract, row, column).isEmpty());
    }

    private TotalLine total(Outline.TotalLine total) {
        int label = (int) shown.stream()
                .takeWhile(column -> extract.columns().get(column).total() == null)
                .count();
        var cells = new ArrayList<TotalCell>();
        String line = total.values().isEmpty() ? "border-top:2px solid #22303c;" : "";
        for (int column : shown.subList(Math.max(1, label), shown.size())) {
            var of = extract.columns().get(column);
            Object value = total.totals().get(column);
            cells.add(
                    value == null || of.total() == null
                            ? new TotalCell("", null)
                            : new TotalCell(figure(value, of), of.heading()));
        }
        if (!plain()) cells.add(new TotalCell("", null));
        String rows = total.values().isEmpty()
                ? words.phrases().of(total.reported() ? "table.all.reported" : "table.all", total.rows())
                : words.phrases().of("table.rows", total.rows());
        String first = label == 0 ? rows + ": " + figure(total.totals().get(shown.getFirst()), shown.getFirst()) : rows;
        return new TotalLine(first, Math.max(1, label), line, cells);
    }

    private String figure(@Nullable Object value, int column) {
        return value == null ? "" : figure(value, extract.columns().get(column));
    }

    /** A sum is what everybody expects below numbers; another figure says what it is. */
    private String figure(Object value, Extract.Column column) {
        String text = CellWords.ofTotal(value, column, extract);
        return column.total() == Total.SUM || column.total() == null
                ? text
                : words.phrases().of("total." + column.total().name()) + " " + text;
    }

    private String text(Extract.Row row, int column) {
        return words.rows()
                .bare(row.cells().get(column).value(), extract.columns().get(column), extract);
    }

    private boolean isRight(int column) {
        var of = extract.columns().get(column);
        return column != shown.getFirst() && of.type() == Type.NUMBER && !of.hasWords();
    }

    private String left(int column) {
        return column == shown.getFirst() ? "0" : "8px";
    }
}
