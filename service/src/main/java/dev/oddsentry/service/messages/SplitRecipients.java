package dev.oddsentry.service.messages;

import dev.oddsentry.core.definition.DeliveryDefinition.Split;
import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.queries.QueryRunner;
import dev.oddsentry.service.reporting.ReportPlan;
import dev.oddsentry.service.sources.Sources;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.springframework.stereotype.Component;

/** The recipients of each value of a split: from the rule, a query, or the rows. */
@Component
public class SplitRecipients {
    private final DefinitionStore definitions;
    private final Sources sources;
    private final QueryRunner queries;
    private final RowAddresses ofRows;

    SplitRecipients(DefinitionStore definitions, Sources sources, QueryRunner queries, RowAddresses ofRows) {
        this.definitions = definitions;
        this.sources = sources;
        this.queries = queries;
        this.ofRows = ofRows;
    }

    /**
     * @return addresses by value; what the rule names counts before what the query says
     * @throws CheckFailureException if the query is gone, has other columns, or gives what is no address
     */
    public Map<String, List<String>> of(RuleDefinition rule, Moment moment, Split split) {
        var all = new HashMap<String, List<String>>();
        if (split.from() != null) all.putAll(ofQuery(rule, moment, split, split.from()));
        all.putAll(split.to());
        return all;
    }

    /**
     * @param named by value, as {@link #of} gives them
     * @return the recipients of an audience: those of its value, else the addresses in its rows; empty if there are none
     */
    public List<String> recipientsOf(
            Map<String, List<String>> named, MessageContext context, ReportPlan.Part part, Evaluation evaluation) {
        var split = Objects.requireNonNull(context.rule().delivery().split(), "not split");
        var to = named.getOrDefault(Objects.requireNonNullElse(part.audience().split(), ""), List.of());
        return to.isEmpty() && split.address() != null
                ? ofRows.addresses(context, part, split.address(), evaluation)
                : to;
    }

    private Map<String, List<String>> ofQuery(RuleDefinition rule, Moment moment, Split split, String name) {
        var query = definitions
                .query(name)
                .orElseThrow(() -> new CheckFailureException(
                        FailureKind.RECIPIENTS,
                        "The query " + name + ", which names the recipients, has been deleted."))
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
                                FailureKind.RECIPIENTS,
                                "The query " + name + " gives \"" + each.strip() + "\" for " + of
                                        + ", which is not a mail address.");
                    found.computeIfAbsent(of, _ -> new ArrayList<>()).add(each.strip());
                }
            };
        });
        return found;
    }

    private static CheckFailureException lacks(String query, String column) {
        return new CheckFailureException(
                FailureKind.RECIPIENTS,
                "The query " + query + ", which names the recipients, does not return a column " + column + ".");
    }
}
