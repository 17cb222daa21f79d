package dev.oddsentry.core.extract;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.value.Type;
import java.time.temporal.TemporalAccessor;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * A format behind the field of a template: {@code {{next | weekday}}}, {@code {{sum_litres | #,##0}}}. It is one of some names, or a pattern
 * as columns have it.
 */
public record FieldFormat(String field, CellFormat format) {
    private static final Map<String, CellFormat> NAMED = new LinkedHashMap<>();

    static {
        NAMED.put("date", new CellFormat("d MMMM yyyy"));
        NAMED.put("weekday", new CellFormat("EEEE"));
        NAMED.put("month", new CellFormat("MMMM yyyy"));
        NAMED.put("time", new CellFormat("HH:mm"));
    }

    /** @return empty for a field without a format */
    static Optional<FieldFormat> in(String written) {
        int bar = written.indexOf('|');
        if (bar < 0) return Optional.empty();
        String format = written.substring(bar + 1).strip();
        var named = NAMED.get(format);
        return Optional.of(new FieldFormat(nameIn(written), named == null ? parsed(format) : named));
    }

    private static CellFormat parsed(String format) {
        try {
            return CellFormat.of(format);
        } catch (InvalidDefinitionException unknown) {
            throw InvalidDefinitionException.of("\"" + format + "\" is not a format. Use "
                    + String.join(", ", NAMED.keySet()) + ", or a pattern such as d MMM yyyy HH:mm or #,##0.00");
        }
    }

    /** The field alone. */
    static String nameIn(String written) {
        int bar = written.indexOf('|');
        return bar < 0 ? written : written.substring(0, bar).strip();
    }

    /** The names of formats that values of a type may have. */
    public static List<String> namesFor(Type type) {
        return switch (type) {
            case DATE -> List.of("date", "weekday", "month");
            case TIMESTAMP, INSTANT -> List.of("date", "weekday", "month", "time");
            case TIME -> List.of("time");
            case NUMBER -> List.of("#,##0");
            default -> List.of();
        };
    }

    /** Under what a template finds the value to be formatted, beside the field's own text. */
    static String key(String field) {
        return field + " |";
    }

    /**
     * Lets a field be formatted.
     *
     * @param values of the template's fields, by name
     * @param value a number or a time; nothing else has a format
     */
    public static void allow(
            Map<String, @Nullable Object> values, String field, @Nullable Object value, Language language) {
        if (value instanceof Number number)
            values.put(key(field), (Function<CellFormat, String>) format -> format.number(number, language));
        if (value instanceof TemporalAccessor time)
            values.put(key(field), (Function<CellFormat, String>) format -> format.time(time, language));
    }

    /** The field's text in the format; a value that is missing has none. */
    String written(Map<?, ?> values) {
        if (values.get(key(field)) instanceof Function<?, ?> formatter) {
            @SuppressWarnings("unchecked")
            var write = (Function<CellFormat, String>) formatter;
            return write.apply(format);
        }
        Object text = values.get(field);
        return text == null ? "" : text.toString();
    }
}
