package dev.oddsentry.extracts.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** Writes a table of texts as CSV, row by row, in the form that {@link CsvExtract} has; nothing of it becomes a formula. */
public final class CsvTable {
    private final Writer text;
    private final CsvWriter csv;

    /** @param out is flushed by {@link #end} and stays open */
    public CsvTable(OutputStream out, List<String> headings) throws IOException {
        text = new OutputStreamWriter(out, StandardCharsets.UTF_8);
        text.write(CsvExtract.BYTE_ORDER_MARK);
        csv = CsvWriter.builder().lineDelimiter(LineDelimiter.CRLF).build(text);
        row(headings);
    }

    public void row(List<String> cells) {
        csv.writeRecord(cells.stream().map(CsvExtract::harmless).toList());
    }

    public void end() throws IOException {
        csv.flush();
        text.flush();
    }
}
