package dev.oddsentry.extracts.page;

import dev.oddsentry.core.definition.Attachment;
import dev.oddsentry.core.extract.CellWords;
import dev.oddsentry.core.extract.ExtraColumn;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Outline;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.extracts.XmlText;
import dev.oddsentry.extracts.words.FileWords;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Writes an extract as one HTML page that is XML too, loads nothing and runs nothing: a table that reads on paper and on a screen. */
public final class PageExtract {
    /** Tables of more columns lie down on paper. */
    private static final int MOST_UPRIGHT = 6;

    private static final String SMALL = "font: 8pt 'DejaVu Sans', sans-serif; color: #5d6b78";

    private static final String STYLE = """
            @page { size: %s; margin: %dmm; %s@bottom-right { content: counter(page) " / " counter(pages); font: 8pt 'DejaVu Sans', sans-serif; color: #5d6b78 } @bottom-left { content: "%s"; font: 8pt 'DejaVu Sans', sans-serif; color: #5d6b78 } }
            body { font: 9pt/1.4 'DejaVu Sans', sans-serif; color: #22303c; margin: 0 auto; max-width: 100rem; padding: 0 0.5rem }
            h1 { font-size: 15pt; margin: 0 0 2pt } p { color: #5d6b78; margin: 0 0 10pt } .part { margin: 12pt 0 4pt }
            table { border-collapse: collapse; width: 100%%; -fs-table-paginate: paginate } .f { table-layout: fixed }
            th { text-align: left; border-bottom: 1.5pt solid #22303c; padding: 3pt 5pt; vertical-align: bottom }
            td { border-bottom: 0.5pt solid #e3ded4; padding: 3pt 5pt; vertical-align: top; word-wrap: break-word }
            tr { page-break-inside: avoid } .n { text-align: right; font-variant-numeric: tabular-nums } .n, .w { white-space: nowrap }
            .m { font-weight: bold; background: #fbe8c8 } .g td { font-weight: bold; padding-top: 9pt } .t td { font-weight: bold; border-bottom: 1pt solid #22303c }
            """;

    /** Of the letters of tables, on paper. */
    private static final double CHARACTERS_IN_A_MILLIMETRE = 0.46;

    /** Characters that a severity or a kind of news takes. */
    private static final int BESIDE = 12;

    private static final int NARROWEST = 6;
    private static final int WIDEST_TEXT = 24;
    private static final int LOOKED_AT = 200;

    private final Extract extract;
    private final FileWords words;
    private final Writer html;
    private List<Integer> shown;

    private PageExtract(Extract extract, Writer html) {
        this.shown = IntStream.range(0, extract.columns().size()).boxed().toList();
        this.extract = extract;
        this.words = FileWords.of(extract);
        this.html = html;
    }

    /**
     * @param title of the page
     * @param below a line under it
     * @param page as the attachment has it
     * @param header on each page; empty for none
     * @param footer on each page; empty for the title
     */
    public record Heading(String title, String below, Attachment.Page page, String header, String footer) {
        /** On the usual page. */
        public static Heading of(String title, String below) {
            return new Heading(title, below, Attachment.Page.USUAL, "", "");
        }
    }

    /** Writes all rows and flushes; the stream stays open. */
    public static void write(Extract extract, Heading heading, OutputStream out) throws IOException {
        var html = new OutputStreamWriter(out, StandardCharsets.UTF_8);
        new PageExtract(extract, html).write(heading, false);
        html.flush();
    }

    /** The same for paper: columns that do not fit beside the others follow in tables of their own, each with the first column again. */
    static void writeForPaper(Extract extract, Heading heading, OutputStream out) throws IOException {
        var html = new OutputStreamWriter(out, StandardCharsets.UTF_8);
        new PageExtract(extract, html).write(heading, true);
        html.flush();
    }

    private void write(Heading heading, boolean forPaper) throws IOException {
        int columns = extract.columns().size() + extract.arrangement().besides().size();
        var page = heading.page();
        boolean lying = page.orientation() == null
                ? columns > MOST_UPRIGHT || (forPaper && width() > across(page, false))
                : page.orientation() == Attachment.Orientation.LANDSCAPE;
        String size = lying
                ? page.paper().height() + "mm " + page.paper().width() + "mm"
                : page.paper().width() + "mm " + page.paper().height() + "mm";
        String header = heading.header().isEmpty()
                ? ""
                : "@top-left { content: \"" + quoted(heading.header()) + "\"; " + SMALL + " } ";
        html.write("<!DOCTYPE html>\n<html xmlns=\"http://www.w3.org/1999/xhtml\" lang=\""
                + extract.language().code() + "\">\n<head>\n<meta charset=\"utf-8\"/>\n<title>"
                + escape(heading.title())
                + "</title>\n<meta name=\"viewport\" content=\"width=device-width\"/>\n<meta name=\"description\" content=\""
                + escape(heading.title()) + "\"/>\n<style>\n"
                + STYLE.formatted(
                        size,
                        page.margin(),
                        header,
                        quoted(heading.footer().isEmpty() ? heading.title() : heading.footer()))
                + "</style>\n</head>\n<body>\n<h1>" + escape(heading.title()) + "</h1>\n<p>" + escape(heading.below())
                + "</p>\n");
        var tables = forPaper ? tables(across(page, lying)) : List.of(shown);
        var lines = Outline.of(extract);
        for (int i = 0; i < tables.size(); i++) {
            shown = tables.get(i);
            if (tables.size() > 1)
                html.write("<p class=\"part\">" + escape(words.columnsOf(i + 1, tables.size())) + "</p>\n");
            table(lines, forPaper);
        }
        html.write("</body>\n</html>\n");
    }

    /** About how many characters fit across a page of paper. */
    private static int across(Attachment.Page page, boolean lying) {
        int width = lying ? page.paper().height() : page.paper().width();
        return (int) ((width - 2 * page.margin()) * CHARACTERS_IN_A_MILLIMETRE);
    }

    /** Fit for a string of a style sheet in a page that is XML too. */
    private static String quoted(String text) {
        return text.replaceAll("[\"\\\\<>&\\p{Cntrl}]", " ");
    }

    /** In characters, as far as they need not break. */
    private int width() {
        int width = BESIDE * extract.arrangement().besides().size();
        for (int i = 0; i < extract.columns().size(); i++) width += width(i);
        return width;
    }

    private int width(int index) {
        var column = extract.columns().get(index);
        int longest = extract.rows().stream()
                .limit(LOOKED_AT)
                .mapToInt(row -> CellWords.of(row.cells().get(index).value(), column, extract)
                        .length())
                .max()
                .orElse(0);
        int heading = Stream.of(column.heading().split("\\s+"))
                .mapToInt(String::length)
                .max()
                .orElse(0);
        int most = mayBreak(column) ? WIDEST_TEXT : Integer.MAX_VALUE;
        return Math.max(NARROWEST, Math.max(Math.min(heading, WIDEST_TEXT), Math.min(longest, most))) + 2;
    }

    private List<List<Integer>> tables(int across) {
        var tables = new ArrayList<List<Integer>>();
        var table = new ArrayList<Integer>();
        int besides = BESIDE * extract.arrangement().besides().size();
        int used = besides;
        for (int i = 0; i < extract.columns().size(); i++) {
            boolean full = used + width(i) > across && table.size() > (tables.isEmpty() ? 0 : 1);
            if (full) {
                tables.add(List.copyOf(table));
                table.clear();
                table.add(0);
                used = besides + width(0);
            }
            table.add(i);
            used += width(i);
        }
        tables.add(List.copyOf(table));
        return tables;
    }

    private void table(List<Outline.Line> lines, boolean forPaper) throws IOException {
        int columns = shown.size() + extract.arrangement().besides().size();
        html.write(forPaper ? "<table class=\"f\">\n" + widths() + "<thead><tr>" : "<table>\n<thead><tr>");
        var besides = extract.arrangement().besides();
        if (besides.contains(ExtraColumn.SEVERITY))
            html.write("<th scope=\"col\">" + escape(words.severityHeading()) + "</th>");
        if (besides.contains(ExtraColumn.UPDATE))
            html.write("<th scope=\"col\">" + escape(words.newsHeading()) + "</th>");
        for (int index : shown) {
            var column = extract.columns().get(index);
            html.write("<th scope=\"col\"" + (isNumber(column) ? " class=\"n\"" : "") + ">" + escape(column.heading())
                    + "</th>");
        }
        html.write("</tr></thead>\n<tbody>\n");
        if (lines.isEmpty())
            html.write("<tr><td colspan=\"" + Math.max(1, columns) + "\">" + escape(words.noRows()) + "</td></tr>\n");
        for (var line : lines) {
            switch (line) {
                case Outline.RowLine(var row) -> row(row);
                case Outline.GroupLine(var values, int rows) ->
                    html.write("<tr class=\"g\"><td colspan=\"" + columns + "\">" + escape(words.group(values, extract))
                            + ": " + rows + "</td></tr>\n");
                case Outline.TotalLine total -> total(total);
            }
        }
        html.write("</tbody>\n</table>\n");
    }

    /** Shares of the page, so that one long value does not squeeze the columns beside it until their words break. */
    private String widths() {
        int besides = extract.arrangement().besides().size();
        int all = BESIDE * besides + shown.stream().mapToInt(this::width).sum();
        return IntStream.concat(
                        IntStream.generate(() -> BESIDE).limit(besides),
                        shown.stream().mapToInt(this::width))
                .mapToObj(width -> "<col style=\"width: "
                        + BigDecimal.valueOf(100L * width).divide(BigDecimal.valueOf(all), 2, RoundingMode.DOWN)
                        + "%\"/>")
                .collect(Collectors.joining("", "<colgroup>", "</colgroup>\n"));
    }

    private void row(Extract.Row row) throws IOException {
        html.write("<tr>");
        var besides = extract.arrangement().besides();
        if (besides.contains(ExtraColumn.SEVERITY))
            html.write(
                    "<td style=\"color: " + words.colour(row) + "\">" + escape(words.signAndSeverity(row)) + "</td>");
        if (besides.contains(ExtraColumn.UPDATE)) html.write("<td>" + escape(words.news(row.kinds())) + "</td>");
        for (int i : shown) {
            var column = extract.columns().get(i);
            var cell = row.cells().get(i);
            cell(column, CellWords.of(cell.value(), column, extract), cell.marked(), cell.link());
        }
        html.write("</tr>\n");
    }

    private void cell(Extract.Column column, String text, boolean marked, @Nullable String link) throws IOException {
        String classes = Stream.of(
                        isNumber(column) ? "n" : "", isNumber(column) || mayBreak(column) ? "" : "w", marked ? "m" : "")
                .filter(each -> !each.isEmpty())
                .collect(Collectors.joining(" "));
        html.write(
                "<td" + (classes.isEmpty() ? "" : " class=\"" + classes + "\"") + ">" + anchored(text, link) + "</td>");
    }

    private static String anchored(String text, @Nullable String link) {
        return link == null || text.isEmpty()
                ? escape(text)
                : "<a href=\"" + escape(link) + "\">" + escape(text) + "</a>";
    }

    private void total(Outline.TotalLine total) throws IOException {
        html.write("<tr class=\"t\">");
        int besides = extract.arrangement().besides().size();
        String label = words.total(total, extract);
        boolean inFirst = besides == 0 && total.totals().getFirst() == null;
        if (besides > 0) html.write("<td colspan=\"" + besides + "\">" + escape(label) + "</td>");
        for (int i : shown) {
            var column = extract.columns().get(i);
            String text = CellWords.ofTotal(total.totals().get(i), column, extract);
            cell(column, i == 0 && inFirst ? label : text, false, null);
        }
        html.write("</tr>\n");
    }

    /** A number, a date or a time stays in one line. */
    private static boolean mayBreak(Extract.Column column) {
        return column.hasWords() || column.type() == Type.TEXT || column.type() == Type.BYTES;
    }

    private static boolean isNumber(Extract.Column column) {
        return column.type() == Type.NUMBER && !column.hasWords();
    }

    /** Also without what XML cannot hold. */
    static String escape(String text) {
        return XmlText.clean(text)
                .replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}
