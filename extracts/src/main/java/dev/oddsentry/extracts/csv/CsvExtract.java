package dev.oddsentry.extracts.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.memory.NewsKind;
import dev.oddsentry.core.value.CellText;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/**
 * Writes an extract as RFC 4180 CSV: UTF-8 with a byte-order mark, so that spreadsheets read the letters right, comma, CRLF.
 * Severity and news come first, then the columns by their labels.
 */
public final class CsvExtract {
    static final String BYTE_ORDER_MARK = "\ufeff";
    /** What a spreadsheet would take for the start of a formula. */
    private static final String FORMULA_STARTS = "=+-@\t\r";

    private CsvExtract() {}

    /** Writes all rows and flushes; the stream stays open. */
    public static void write(Extract extract, OutputStream out) throws IOException {
        Writer text = new OutputStreamWriter(out, StandardCharsets.UTF_8);
        text.write(BYTE_ORDER_MARK);
        // Not closed: closing it would close the caller's stream.
        CsvWriter csv = CsvWriter.builder().lineDelimiter(LineDelimiter.CRLF).build(text);
        csv.writeRecord(headings(extract));
        for (var row : extract.rows()) csv.writeRecord(record(row, extract.zone()));
        csv.flush();
        text.flush();
    }

    private static List<String> headings(Extract extract) {
        var headings = new ArrayList<>(List.of("Severity", "News"));
        extract.columns().forEach(column -> headings.add(heading(column)));
        return headings;
    }

    private static String heading(Extract.Column column) {
        return harmless(column.unit() == null ? column.label() : column.label() + " (" + column.unit() + ")");
    }

    private static List<String> record(Extract.Row row, ZoneId zone) {
        var fields = new ArrayList<>(List.of(
                row.severity().word(),
                row.kinds().stream().sorted().map(NewsKind::code).collect(Collectors.joining(", "))));
        for (var cell : row.cells()) {
            String text = CellText.of(cell.value(), zone);
            fields.add(cell.value() instanceof String ? harmless(text) : text);
        }
        return fields;
    }

    /** Text from data is never a formula: an apostrophe before it makes spreadsheets show it as it is. */
    static String harmless(String text) {
        return !text.isEmpty() && FORMULA_STARTS.indexOf(text.charAt(0)) >= 0 ? "'" + text : text;
    }
}
