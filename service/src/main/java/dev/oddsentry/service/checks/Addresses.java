package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.DeliveryDefinition.Split;
import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.queries.QueryRunner;
import dev.oddsentry.service.sources.Sources;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;

/** Who is named for each value of a split, in the rule itself or by a query. */
@Component
class Addresses {
    private final DefinitionStore definitions;
    private final Sources sources;
    private final QueryRunner queries;

    Addresses(DefinitionStore definitions, Sources sources, QueryRunner queries) {
        this.definitions = definitions;
        this.sources = sources;
        this.queries = queries;
    }

    /**
     * @return addresses by value; what the rule names counts before what the query says
     * @throws CheckFailureException if the query is gone, has other columns, or gives what is no address
     */
    Map<String, List<String>> of(RuleDefinition rule, Moment moment, Split split) {
        var all = new HashMap<String, List<String>>();
        if (split.from() != null) all.putAll(ofQuery(rule, moment, split, split.from()));
        all.putAll(split.to());
        return all;
    }

    private Map<String, List<String>> ofQuery(RuleDefinition rule, Moment moment, Split split, String name) {
        var query = definitions
                .query(name)
                .orElseThrow(
                        () -> new CheckFailureException("The query " + name + ", which says who hears, is gone.", null))
                .definition();
        var found = new LinkedHashMap<String, List<String>>();
        var values = Parameters.valuesAt(moment, rule, query);
        queries.readAll(sources.require(query.source()), query, values, columns -> {
            int by = columns.indexOf(split.by(), false).orElseThrow(() -> lacks(name, split.by()));
            int address = columns.indexOf(Split.ADDRESS, false).orElseThrow(() -> lacks(name, Split.ADDRESS));
            return row -> {
                Object value = row[by];
                Object written = row[address];
                if (written == null) return;
                String of = value == null ? "" : CellText.of(value, moment.zone());
                for (String each : written.toString().split("[,;]")) {
                    if (each.isBlank()) continue;
                    if (!MailAddress.isOne(each.strip()))
                        throw new CheckFailureException(
                                "The query " + name + " gives \"" + each.strip() + "\" for " + of
                                        + ", which is not a mail address.",
                                null);
                    found.computeIfAbsent(of, _ -> new ArrayList<>()).add(each.strip());
                }
            };
        });
        return found;
    }

    private static CheckFailureException lacks(String query, String column) {
        return new CheckFailureException(
                "The query " + query + ", which says who hears, returns no column " + column + ".", null);
    }
}
