package dev.oddsentry.core.definition;

import dev.oddsentry.core.extract.CellFormat;
import dev.oddsentry.core.extract.CellLink;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.Moment;
import java.util.LinkedHashMap;
import java.util.List;
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
 * @param categories under which people find it, in the order written
 * @param columns what is known of columns by their names; a column without an entry is shown by its name
 */
public record QueryDefinition(
        @Nullable String id,
        String name,
        String title,
        @Nullable String owner,
        List<String> visibleTo,
        String source,
        String sql,
        Map<String, Parameter> parameters,
        Map<String, ColumnMeaning> columns,
        List<String> categories)
        implements Definition {

    /**
     * @param defaultValue the value in a rule that gives none: a literal or a relative date; null where a rule must give one, or may leave it out
     * @param multiple whether it takes a list, as in {@code where terminal in (:terminals)}; its values are written with commas
     * @param optional whether it may have no value, which is null
     * @param choices what it may be; null where anything of its type
     * @param help what it is for, in words; null for none
     */
    public record Parameter(
            ParameterType type,
            @Nullable String defaultValue,
            boolean multiple,
            boolean optional,
            @Nullable Choices choices,
            @Nullable String help) {
        /** @throws InvalidDefinitionException if the text is no value of this parameter */
        public void check(String written) {
            for (String value : values(written)) {
                type.check(value);
                if (choices instanceof Choices.Listed(var listed) && !listed.contains(value))
                    throw new InvalidDefinitionException(
                            List.of(Problem.error("\"" + value + "\" is none of " + String.join(", ", listed), "", null)
                                    .suggesting(Nearest.to(value, listed).orElse(null))));
            }
        }

        /** One value, or a list of them where it takes multiple. */
        public Object valueAt(Moment moment, String written) {
            if (!multiple) return type.valueAt(moment, written);
            return values(written).stream()
                    .map(value -> type.valueAt(moment, value))
                    .toList();
        }

        /** Of a list, every one: one alone moves less than the window that is asked for. */
        public boolean moves(String written) {
            return values(written).stream().anyMatch(type::moves);
        }

        public boolean isSinceLastCheck(String written) {
            return values(written).stream().anyMatch(type::isSinceLastCheck);
        }

        public boolean isUnsettled(String written) {
            return values(written).stream().anyMatch(type::isUnsettled);
        }

        private List<String> values(String written) {
            return multiple ? ValueList.read(written) : List.of(written);
        }
    }

    /** What a parameter may be. */
    public sealed interface Choices {
        record Listed(List<String> values) implements Choices {}

        /**
         * The rows of another query, offered to people; a value that it no longer returns stays as it is.
         *
         * @param label the column with the words for the value; null where the value says enough
         */
        record OfQuery(String from, String value, @Nullable String label) implements Choices {}
    }

    /**
     * @param unit shown behind the value, such as {@code min}
     * @param format how values are written; null for the usual way of their type
     * @param words what codes mean, by their text
     * @param link where a value leads; null for nowhere
     */
    public record ColumnMeaning(
            String label,
            @Nullable String unit,
            @Nullable CellFormat format,
            Map<String, String> words,
            @Nullable CellLink link) {
        public static ColumnMeaning named(String label) {
            return new ColumnMeaning(label, null, null, Map.of(), null);
        }
    }

    @Override
    public Kind kind() {
        return Kind.QUERY;
    }

    @Override
    public QueryDefinition withId(String newId) {
        return new QueryDefinition(newId, name, title, owner, visibleTo, source, sql, parameters, columns, categories);
    }

    /** The names of the queries whose rows its parameters are chosen from, by parameter. */
    public Map<String, String> chosenFrom() {
        var from = new LinkedHashMap<String, String>();
        parameters.forEach((parameter, declared) -> {
            if (declared.choices() instanceof Choices.OfQuery offer) from.put(parameter, offer.from());
        });
        return from;
    }

    public ColumnMeaning meaningOf(String column) {
        return columns.getOrDefault(column, ColumnMeaning.named(column));
    }
}
