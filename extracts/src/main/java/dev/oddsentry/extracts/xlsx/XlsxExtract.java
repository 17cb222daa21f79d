package dev.oddsentry.extracts.xlsx;

import dev.oddsentry.core.definition.Attachment;
import dev.oddsentry.core.extract.CellWords;
import dev.oddsentry.core.extract.ExtraColumn;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Outline;
import dev.oddsentry.core.extract.Total;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.extracts.XmlText;
import dev.oddsentry.extracts.words.FileWords;
import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Objects;
import org.dhatim.fastexcel.HyperLink;
import org.dhatim.fastexcel.PaperSize;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.jspecify.annotations.Nullable;

/**
 * Writes an extract as a workbook (ECMA-376) of one sheet: typed cells, a header that stays and can be filtered, the cells that made a row an
 * exception in bold on amber. Text from data is text, whatever it starts with. What a sheet cannot hold exactly (a number of more than
 * fifteen digits, a date before 1900) is written as text.
 */
public final class XlsxExtract {
    /** So that a great extract is never held as a whole. */
    private static final int FLUSH_EVERY = 500;

    private static final int LONGEST_TEXT = 32_767;
    private static final int EXACT_DIGITS = 15;
    private static final long EXACT_BELOW = 1_000_000_000_000_000L;
    private static final LocalDate FIRST_DAY = LocalDate.of(1900, 3, 1);
    private static final LocalDate LAST_DAY = LocalDate.of(9999, 12, 31);
    private static final int NARROWEST = 9;
    /** Of a severity or a kind of update. */
    private static final int BESIDE = 14;

    private static final int WIDEST = 60;
    /** Rows that are looked at for the width of a column. */
    private static final int LOOKED_AT = 200;

    /** A sheet with more is taken for a damaged one; later values have no link. */
    private static final int MOST_LINKS = 65_000;

    private static final String MARKED = "FBE8C8";
    private static final String HEADER = "E9E4D8";

    private final Extract extract;
    private final FileWords words;
    private final Attachment.Page page;
    private final Attachment.Sheet settings;
    private final Worksheet sheet;
    private final int first;
    private int line;
    private int links;

    private XlsxExtract(Extract extract, Attachment.Page page, Attachment.Sheet settings, Worksheet sheet) {
        this.extract = extract;
        this.page = page;
        this.settings = settings;
        this.words = FileWords.of(extract);
        this.sheet = sheet;
        this.first = extract.arrangement().besides().size();
    }

    /** Writes the workbook; the stream stays open. */
    public static void write(Extract extract, OutputStream out) throws IOException {
        write(extract, Attachment.Page.USUAL, Attachment.Sheet.USUAL, out);
    }

    /** The same with the settings of an attachment. */
    public static void write(Extract extract, Attachment.Page page, Attachment.Sheet settings, OutputStream out)
            throws IOException {
        var workbook = new Workbook(out, "Odd Sentry", "1.0");
        // Most of the time goes into packing; the stronger levels make files hardly smaller.
        workbook.setCompressionLevel(1);
        new XlsxExtract(
                        extract,
                        page,
                        settings,
                        workbook.newWorksheet(extract.arrangement().sheet()))
                .write();
        workbook.finish();
        out.flush();
    }

    private void write() throws IOException {
        var lines = Outline.of(extract);
        setUp(lines);
        header();
        for (var each : lines) {
            switch (each) {
                case Outline.RowLine(var row) -> row(row);
                case Outline.GroupLine(var values, int rows) -> group(values, rows);
                case Outline.TotalLine total -> total(total);
            }
            if (++line % FLUSH_EVERY == 0) sheet.flush();
        }
        sheet.finish();
    }

    private void setUp(List<Outline.Line> lines) {
        int columns = first + extract.columns().size();
        sheet.freezePane(Math.min(settings.frozenColumns(), columns), 1);
        sheet.repeatRows(0);
        sheet.paperSize(paper());
        sheet.setFitToPage(true);
        sheet.fitToWidth((short) 1);
        sheet.fitToHeight((short) 0);
        if (page.orientation() == null ? columns > 6 : page.orientation() == Attachment.Orientation.LANDSCAPE)
            sheet.pageOrientation("landscape");
        // A filter would take headings of groups and totals for rows.
        boolean plain = extract.arrangement().groupBy().isEmpty() && !extract.hasTotals();
        if (plain && settings.filter() && columns > 0) sheet.setAutoFilter(0, 0, lines.size(), columns - 1);
        for (int i = 0; i < first; i++) sheet.width(i, Math.max(BESIDE, words.widestSeverity()));
        for (int i = 0; i < extract.columns().size(); i++) sheet.width(first + i, width(i));
    }

    private PaperSize paper() {
        return switch (page.paper()) {
            case A3 -> PaperSize.A3_PAPER;
            case A4 -> PaperSize.A4_PAPER;
            case A5 -> PaperSize.A5_PAPER;
            case LETTER -> PaperSize.LETTER_PAPER;
            case LEGAL -> PaperSize.LEGAL_PAPER;
        };
    }

    private int width(int index) {
        var column = extract.columns().get(index);
        if (column.width() != null) return column.width();
        int widest = extract.rows().stream()
                .limit(LOOKED_AT)
                .mapToInt(row -> CellWords.of(row.cells().get(index).value(), column, extract)
                        .length())
                .max()
                .orElse(0);
        if (column.type() == Type.INSTANT || column.type() == Type.TIMESTAMP) widest = Math.min(widest, 16);
        return Math.clamp(Math.max(widest, column.heading().length()) + 2, NARROWEST, WIDEST);
    }

    private void header() {
        int at = 0;
        var besides = extract.arrangement().besides();
        if (besides.contains(ExtraColumn.SEVERITY)) sheet.value(0, at++, words.severityHeading());
        if (besides.contains(ExtraColumn.UPDATE)) sheet.value(0, at++, words.newsHeading());
        for (var column : extract.columns()) sheet.value(0, at++, clean(heading(column)));
        if (at > 0)
            sheet.range(0, 0, 0, at - 1)
                    .style()
                    .bold()
                    .fillColor(HEADER)
                    .wrapText(true)
                    .set();
        line = 1;
    }

    /** A sheet knows no zones, so the heading says it. */
    private String heading(Extract.Column column) {
        return column.type() == Type.INSTANT && !column.hasWords()
                ? column.heading() + " (" + extract.zone().getId() + ")"
                : column.heading();
    }

    private void row(Extract.Row row) {
        int at = 0;
        var besides = extract.arrangement().besides();
        if (besides.contains(ExtraColumn.SEVERITY)) sheet.value(line, at++, words.signAndSeverity(row));
        if (besides.contains(ExtraColumn.UPDATE)) sheet.value(line, at++, words.news(row.kinds()));
        for (int i = 0; i < row.cells().size(); i++) {
            var cell = row.cells().get(i);
            // The library puts the address in as the cell's text, so the value is written after it.
            if (cell.link() != null && cell.value() != null && links++ < MOST_LINKS)
                sheet.hyperlink(line, first + i, new HyperLink(cell.link()));
            cell(first + i, cell.value(), extract.columns().get(i), cell.marked(), false);
        }
    }

    private void cell(int at, @Nullable Object value, Extract.Column column, boolean marked, boolean bold) {
        if (value == null) {
            if (marked) sheet.style(line, at).fillColor(MARKED).set();
            return;
        }
        String format = column.hasWords() ? null : typed(at, value, column);
        if (format == null && column.hasWords()) text(at, CellWords.of(value, column, extract));
        boolean plain = format == null || format.isEmpty();
        if (plain && !marked && !bold) return;
        var style = sheet.style(line, at);
        if (!plain) style.format(Objects.requireNonNull(format));
        if (marked) style.bold().fillColor(MARKED);
        if (bold) style.bold();
        style.set();
    }

    /** @return the format of the cell; empty for the usual, null for text */
    private @Nullable String typed(int at, Object value, Extract.Column column) {
        String given = column.format() == null ? null : column.format().ofSheet();
        switch (value) {
            case Long whole when whole > -EXACT_BELOW && whole < EXACT_BELOW -> sheet.value(line, at, whole);
            case BigDecimal exact
            when exact.stripTrailingZeros().precision() <= EXACT_DIGITS -> sheet.value(line, at, exact);
            case Boolean truth -> sheet.value(line, at, truth);
            case LocalDate date
            when fits(date) -> {
                sheet.value(line, at, date);
                return given == null ? "yyyy-mm-dd" : given;
            }
            case LocalDateTime local
            when fits(local.toLocalDate()) && isExact(local) -> {
                sheet.value(line, at, local);
                return given == null ? usual(local) : given;
            }
            case Instant instant
            when CellWords.isFinite(instant)
                    && fits(instant.atZone(extract.zone()).toLocalDate())
                    && isExact(instant.atZone(extract.zone()).toLocalDateTime()) -> {
                var local = instant.atZone(extract.zone()).toLocalDateTime();
                sheet.value(line, at, local);
                return given == null ? usual(local) : given;
            }
            default -> {
                text(at, CellText.of(value, extract.zone()));
                return null;
            }
        }
        return given == null || value instanceof Boolean ? "" : given;
    }

    /** A sheet counts days in floating point, which is exact to the millisecond. */
    private static boolean isExact(LocalDateTime local) {
        return local.getNano() % 1_000_000 == 0;
    }

    private static String usual(LocalDateTime local) {
        if (local.getNano() != 0) return "yyyy-mm-dd hh:mm:ss.000";
        return local.getSecond() == 0 ? "yyyy-mm-dd hh:mm" : "yyyy-mm-dd hh:mm:ss";
    }

    private static boolean fits(LocalDate date) {
        return !date.isBefore(FIRST_DAY) && !date.isAfter(LAST_DAY);
    }

    /** In place and not among the shared texts, which are held until the end. */
    private void text(int at, String text) {
        sheet.inlineString(line, at, clean(text));
    }

    /** Without what XML cannot hold, and no longer than a cell may be. */
    private static String clean(String text) {
        String clean = XmlText.clean(text);
        return clean.length() <= LONGEST_TEXT ? clean : clean.substring(0, LONGEST_TEXT - 1) + "…";
    }

    private void group(List<@Nullable Object> values, int rows) {
        text(0, words.group(values, extract) + ": " + rows);
        sheet.style(line, 0).bold().set();
    }

    private void total(Outline.TotalLine total) {
        for (int i = 0; i < total.totals().size(); i++) {
            Object value = total.totals().get(i);
            var column = extract.columns().get(i);
            if (value == null) continue;
            var plain = column.total() == Total.COUNT
                    ? Extract.Column.of(column.name(), column.label(), null, Type.NUMBER)
                    : column;
            cell(first + i, value, plain, false, true);
        }
        if (first > 0 || total.totals().isEmpty() || total.totals().getFirst() == null) {
            text(0, words.total(total, extract));
            sheet.style(line, 0).bold().set();
        }
    }
}
