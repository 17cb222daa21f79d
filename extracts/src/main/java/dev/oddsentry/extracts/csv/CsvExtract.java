package dev.oddsentry.extracts.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import dev.oddsentry.core.extract.CellWords;
import dev.oddsentry.core.extract.ExtraColumn;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.extracts.words.FileWords;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.CodingErrorAction;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Writes an extract as RFC 4180 CSV with CRLF; unless it is asked otherwise in UTF-8 with a byte-order mark, so that spreadsheets read the
 * letters right. Severity and news come first, then the columns by their labels. Rows alone: no headings of groups and no totals.
 */
public final class CsvExtract {
    static final String BYTE_ORDER_MARK = "\ufeff";
    /** What a spreadsheet would take for the start of a formula, in full width too; blanks and marks that nobody sees may stand before it. */
    private static final Pattern FORMULA =
            Pattern.compile("[\\t\\r\\n].*|[\\s\\h\\p{Cf}]*[=+\\-@\uff1d\uff0b\uff0d\uff20].*", Pattern.DOTALL);

    /** A phone number or a span of time begins with a sign and is no formula. */
    private static final Pattern SIGNED = Pattern.compile("[+\\-][0-9][0-9 .,:()/\\-]*");

    private static final int BUFFER = 1 << 16;

    private CsvExtract() {}

    /** @param mark whether a byte-order mark comes first */
    public record Style(char delimiter, char decimal, Charset charset, boolean mark) {}

    /** Writes all rows and flushes; the stream stays open. */
    public static void write(Extract extract, Style style, OutputStream out) throws IOException {
        Writer text = new BufferedWriter(new OutputStreamWriter(out, encoder(style.charset())), BUFFER);
        if (style.mark()) text.write(BYTE_ORDER_MARK);
        // Not closed: closing it would close the caller's stream.
        CsvWriter csv = CsvWriter.builder()
                .fieldSeparator(style.delimiter())
                .lineDelimiter(LineDelimiter.CRLF)
                .build(text);
        csv.writeRecord(headings(extract));
        var words = FileWords.of(extract);
        for (var row : extract.rows()) csv.writeRecord(record(row, extract, style, words));
        csv.flush();
        text.flush();
    }

    /** A letter that the encoding does not have becomes a question mark, and nothing else is lost. */
    private static CharsetEncoder encoder(Charset charset) {
        return charset.newEncoder()
                .onMalformedInput(CodingErrorAction.REPLACE)
                .onUnmappableCharacter(CodingErrorAction.REPLACE);
    }

    private static List<String> headings(Extract extract) {
        var headings = new ArrayList<String>();
        var besides = extract.arrangement().besides();
        if (besides.contains(ExtraColumn.SEVERITY))
            headings.add(FileWords.of(extract).severityHeading());
        if (besides.contains(ExtraColumn.UPDATE))
            headings.add(FileWords.of(extract).newsHeading());
        extract.columns().forEach(column -> headings.add(harmless(column.heading())));
        return headings;
    }

    private static List<String> record(Extract.Row row, Extract extract, Style style, FileWords words) {
        var fields = new ArrayList<String>();
        var besides = extract.arrangement().besides();
        if (besides.contains(ExtraColumn.SEVERITY)) fields.add(words.severity(row.severity()));
        if (besides.contains(ExtraColumn.UPDATE)) fields.add(words.news(row.kinds()));
        for (int i = 0; i < row.cells().size(); i++)
            fields.add(field(row.cells().get(i).value(), extract.columns().get(i), extract, style));
        return fields;
    }

    private static String field(@Nullable Object value, Extract.Column column, Extract extract, Style style) {
        if (value == null) return "";
        if (column.format() != null && !(value instanceof Number) || column.hasWords()) {
            String words = CellWords.of(value, column, extract);
            return value instanceof Number && !column.hasWords() ? words : harmless(words);
        }
        String text = CellText.of(value, extract.zone());
        if (value instanceof Number) return style.decimal() == '.' ? text : text.replace('.', style.decimal());
        return value instanceof String ? harmless(text) : text;
    }

    /** Text from data is never a formula: an apostrophe before it makes spreadsheets show it as it is. */
    static String harmless(String text) {
        return FORMULA.matcher(text).matches() && !SIGNED.matcher(text).matches() ? "'" + text : text;
    }
}
