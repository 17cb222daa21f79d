package dev.oddsentry.service.thresholds;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.service.thresholds.ThresholdStore.NewValue;
import java.io.IOException;
import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A threshold's values as a table: the key's columns, {@code from} (may be left out), {@code number}. The separator is the comma, or
 * what spreadsheets paste: a tab, or a semicolon, with which a number may have a decimal comma.
 */
public final class ThresholdCsv {
    private static final int MOST_DIGITS = 60;

    private final List<String> key;
    private final char separator;
    private final List<Problem> problems = new ArrayList<>();
    private final Set<List<@Nullable Object>> seen = new HashSet<>();

    private ThresholdCsv(List<String> key, char separator) {
        this.key = key;
        this.separator = separator;
    }

    /** @throws InvalidDefinitionException with every line that cannot be read */
    public static List<NewValue> read(String text, List<String> key) {
        String bare = text.startsWith("\uFEFF") ? text.substring(1) : text;
        String head = bare.lines().findFirst().orElse("");
        char separator = head.contains("\t") ? '\t' : head.contains(";") ? ';' : ',';
        return new ThresholdCsv(key, separator).read(bare);
    }

    private List<NewValue> read(String text) {
        var values = new ArrayList<NewValue>();
        try (var records = CsvReader.builder().fieldSeparator(separator).ofNamedCsvRecord(text)) {
            boolean first = true;
            for (var each : records) {
                if (first) checkHead(each.getHeader());
                first = false;
                if (!problems.isEmpty()
                        && values.isEmpty()
                        && problems.getFirst().field().isEmpty()) break;
                var value = value(each);
                if (value != null) values.add(value);
            }
        } catch (IOException | RuntimeException unreadable) {
            problems.add(Problem.error("this cannot be read as a table: " + unreadable.getMessage(), "", null));
        }
        if (problems.isEmpty() && values.isEmpty())
            problems.add(Problem.error("the table has no values; its head is " + head(), "", null));
        if (!problems.isEmpty()) throw new InvalidDefinitionException(problems);
        return values;
    }

    private String head() {
        var columns = new ArrayList<>(key);
        columns.add("from");
        columns.add("number");
        return String.join(String.valueOf(separator), columns);
    }

    private void checkHead(List<String> head) {
        var wanted = new ArrayList<>(key);
        wanted.add("number");
        for (String column : wanted) {
            if (!head.contains(column))
                problems.add(
                        Problem.error("the table has no column \"" + column + "\"; its head is " + head(), "", null));
        }
        for (String column : head) {
            if (!wanted.contains(column) && !column.equals("from"))
                problems.add(Problem.error("unknown column \"" + column + "\"; the head is " + head(), "", null));
        }
    }

    private @Nullable NewValue value(NamedCsvRecord line) {
        String field = "line " + line.getStartingLineNumber();
        var keyOfLine = key.stream().map(column -> cell(line, column)).toList();
        var from = date(cell(line, "from"), field);
        var number = number(cell(line, "number"), field);
        boolean isDefault = keyOfLine.stream().allMatch(String::isEmpty);
        if (!isDefault && keyOfLine.contains("")) {
            refuse("only a part of the key is given; leave all of it empty for the default", field);
            return null;
        }
        var place = new ArrayList<@Nullable Object>(isDefault ? List.of() : keyOfLine);
        place.add(from);
        if (!seen.add(place)) refuse("an earlier line has a value for this key and date", field);
        return number == null ? null : new NewValue(isDefault ? List.of() : keyOfLine, from, number);
    }

    private static String cell(NamedCsvRecord line, String column) {
        return line.findField(column).map(String::strip).orElse("");
    }

    private @Nullable LocalDate date(String text, String field) {
        if (text.isEmpty()) return null;
        try {
            return LocalDate.parse(text);
        } catch (DateTimeException notOne) {
            refuse("\"" + text + "\" is not a date. Example: 2026-06-01", field);
            return null;
        }
    }

    private @Nullable BigDecimal number(String text, String field) {
        String plain = separator == ',' ? text : text.replace(',', '.');
        if (plain.length() <= MOST_DIGITS && plain.toLowerCase(Locale.ROOT).matches("[+-]?(\\d+\\.?\\d*|\\.\\d+)"))
            return new BigDecimal(plain);
        refuse("\"" + text + "\" is not a number", field);
        return null;
    }

    private void refuse(String message, String field) {
        problems.add(Problem.error(message, field, null));
    }
}
