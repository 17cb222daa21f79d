package dev.oddsentry.service.copies;

import dev.oddsentry.core.definition.CopiesDefinition;
import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.evaluation.PersonalCopy;
import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.queries.QueryRunner;
import dev.oddsentry.service.sources.Sources;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Asks a recipient query for whom there are personal copies. */
@Component
public class CopyRecipients {
    private final DefinitionStore definitions;
    private final Sources sources;
    private final QueryRunner queries;

    CopyRecipients(DefinitionStore definitions, Sources sources, QueryRunner queries) {
        this.definitions = definitions;
        this.sources = sources;
        this.queries = queries;
    }

    /**
     * @return the copies in the query's order
     * @throws CheckFailureException if the query is gone, has other columns, gives no row, one without its key, or two with the same
     */
    public List<PersonalCopy> of(RuleDefinition rule, CopiesDefinition copies, Moment moment) {
        String name = copies.from();
        var query = definitions
                .query(name)
                .orElseThrow(() -> refused(name, "which says whose the copies are, is gone"))
                .definition();
        var values = Parameters.valuesAt(moment, rule, query);
        var found = new LinkedHashMap<String, PersonalCopy>();
        queries.readAll(sources.require(query.source()), query, values, columns -> {
            var row = new Row(copies, columns, moment.zone());
            return cells -> {
                var copy = row.read(cells);
                if (found.put(copy.key(), copy) != null)
                    throw refused(name, "gives two rows whose " + copies.key() + " is " + copy.key());
            };
        });
        if (found.isEmpty()) throw refused(name, "returned no rows, so there are no personal copies");
        return List.copyOf(found.values());
    }

    /** Reads rows of the recipient query by the columns that the rule names. */
    private static final class Row {
        private final CopiesDefinition copies;
        private final Columns columns;
        private final ZoneId zone;

        Row(CopiesDefinition copies, Columns columns, ZoneId zone) {
            this.copies = copies;
            this.columns = columns;
            this.zone = zone;
            place(copies.key());
            place(copies.address());
            if (copies.greeting() != null) place(copies.greeting());
            copies.parameters().values().forEach(this::place);
        }

        private int place(String column) {
            return columns.indexOf(column, false)
                    .orElseThrow(() -> refused(copies.from(), "returns no column " + column));
        }

        private @Nullable String text(@Nullable Object[] cells, String column) {
            Object cell = cells[place(column)];
            return cell == null ? null : CellText.of(cell, zone);
        }

        PersonalCopy read(@Nullable Object[] cells) {
            String key = text(cells, copies.key());
            if (key == null || key.isBlank())
                throw refused(copies.from(), "gives a row without " + copies.key() + ", the key of the copies");
            var problems = new ArrayList<String>();
            var values = new LinkedHashMap<String, String>();
            copies.parameters().forEach((parameter, column) -> {
                String value = text(cells, column);
                if (value == null) problems.add("it has no " + column + " for the parameter " + parameter);
                else values.put(parameter, value);
            });
            var to = addresses(text(cells, copies.address()));
            to.stream()
                    .filter(each -> !MailAddress.isOne(each))
                    .forEach(each -> problems.add("\"" + each + "\" is not a mail address"));
            String greeting = copies.greeting() == null ? null : text(cells, copies.greeting());
            String problem = problems.isEmpty()
                    ? null
                    : "The row of the query " + copies.from() + " does not do: " + String.join("; ", problems) + ".";
            return new PersonalCopy(key, to, greeting, Map.copyOf(values), row(cells), problem);
        }

        /** What is missing is the empty text. */
        private Map<String, String> row(@Nullable Object[] cells) {
            var row = new LinkedHashMap<String, String>();
            for (int i = 0; i < columns.size(); i++) {
                Object cell = cells[i];
                row.put(columns.at(i).name(), cell == null ? "" : CellText.of(cell, zone));
            }
            return row;
        }

        private static List<String> addresses(@Nullable String written) {
            if (written == null) return List.of();
            return Stream.of(written.split("[,;]"))
                    .map(String::strip)
                    .filter(each -> !each.isEmpty())
                    .distinct()
                    .toList();
        }
    }

    private static CheckFailureException refused(String query, String what) {
        return new CheckFailureException(FailureKind.RECIPIENTS, "The recipient query " + query + " " + what + ".");
    }
}
