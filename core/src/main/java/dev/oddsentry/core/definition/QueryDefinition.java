package dev.oddsentry.core.definition;

import dev.oddsentry.core.extract.CellFormat;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A saved report query.
 *
 * @param id stable over renames; null in a document that was never saved
 * @param name the handle in commands, addresses and other documents
 * @param source the name of the source it reads
 * @param sql one SELECT with named parameters such as {@code :since}
 * @param parameters in the order written
 * @param columns what is known of columns by their names; a column without an entry is shown by its name
 */
public record QueryDefinition(
        @Nullable String id,
        String name,
        String title,
        String source,
        String sql,
        Map<String, Parameter> parameters,
        Map<String, ColumnMeaning> columns)
        implements Definition {

    /** @param preset the value in a rule that gives none: a literal or a relative date; null where a rule must give one */
    public record Parameter(ParameterType type, @Nullable String preset) {}

    /**
     * @param unit shown behind the value, such as {@code min}
     * @param format how values are written; null for the usual way of their type
     * @param words what codes mean, by their text
     */
    public record ColumnMeaning(
            String label, @Nullable String unit, @Nullable CellFormat format, Map<String, String> words) {
        public static ColumnMeaning named(String label) {
            return new ColumnMeaning(label, null, null, Map.of());
        }
    }

    @Override
    public Kind kind() {
        return Kind.QUERY;
    }

    @Override
    public QueryDefinition withId(String newId) {
        return new QueryDefinition(newId, name, title, source, sql, parameters, columns);
    }

    public ColumnMeaning meaningOf(String column) {
        return columns.getOrDefault(column, ColumnMeaning.named(column));
    }
}
