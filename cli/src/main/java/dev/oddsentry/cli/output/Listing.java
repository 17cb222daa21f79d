package dev.oddsentry.cli.output;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** Rows under headings, as an aligned table or as CSV. Columns of numbers stand to the right. */
public final class Listing {
    private static final Pattern FORMULA =
            Pattern.compile("[\\t\\r\\n].*|[\\s\\h\\p{Cf}]*[=+\\-@\uff1d\uff0b\uff0d\uff20].*", Pattern.DOTALL);
    private static final Pattern SIGNED = Pattern.compile("[+\\-][0-9][0-9 .,:()/\\-]*");
    private static final int WIDEST = 60;

    private final List<String> headings;
    private final List<List<String>> rows = new ArrayList<>();

    public Listing(String... headings) {
        this.headings = List.of(headings);
    }

    public Listing(List<String> headings) {
        this.headings = List.copyOf(headings);
    }

    public void add(List<String> row) {
        rows.add(List.copyOf(row));
    }

    public void add(String... row) {
        add(List.of(row));
    }

    public boolean isEmpty() {
        return rows.isEmpty();
    }

    public void printTable(PrintWriter out) {
        var widths = new int[headings.size()];
        for (int i = 0; i < widths.length; i++) widths[i] = width(i);
        out.println(line(headings, widths).toUpperCase(Locale.ROOT));
        rows.forEach(row -> out.println(line(row, widths)));
    }

    private int width(int column) {
        int widest = headings.get(column).length();
        for (var row : rows) widest = Math.max(widest, shown(row.get(column)).length());
        return Math.min(widest, WIDEST);
    }

    private String line(List<String> row, int[] widths) {
        var line = new StringBuilder();
        for (int i = 0; i < widths.length; i++) {
            String cell = shown(row.get(i));
            String blanks = " ".repeat(Math.max(0, widths[i] - cell.length()));
            line.append(isNumeric(i) ? blanks + cell : cell + blanks).append("  ");
        }
        return line.toString().stripTrailing();
    }

    private boolean isNumeric(int column) {
        return !rows.isEmpty() && rows.stream().allMatch(row -> row.get(column).matches("-?[0-9.]*"));
    }

    /** One line, and nothing that a terminal would act on. */
    private static String shown(String cell) {
        String plain = cell.replaceAll("[\\p{Cntrl}\\u2028\\u2029\\u202a-\\u202e\\u2066-\\u2069]+", " ");
        return plain.length() <= WIDEST ? plain : plain.substring(0, WIDEST - 1) + "…";
    }

    public void printCsv(PrintWriter out) {
        var text = new StringWriter();
        try (var csv = CsvWriter.builder().lineDelimiter(LineDelimiter.LF).build(text)) {
            csv.writeRecord(headings);
            rows.forEach(
                    row -> csv.writeRecord(row.stream().map(Listing::harmless).toList()));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        out.print(text);
        out.flush();
    }

    /** Several words as one cell. */
    public static String joined(List<String> words) {
        return words.stream().filter(word -> !word.isEmpty()).collect(Collectors.joining(", "));
    }

    /** Text from data is never a formula in a spreadsheet that opens the listing; a signed number or a phone number is none. */
    private static String harmless(String text) {
        return FORMULA.matcher(text).matches() && !SIGNED.matcher(text).matches() ? "'" + text : text;
    }
}
