package dev.oddsentry.service.evaluation;

import dev.oddsentry.core.definition.RuleDefinition.ExpectedGroups.OfLastChecks;
import dev.oddsentry.core.definition.RuleDefinition.ExpectedGroups.OfQuery;
import dev.oddsentry.core.definition.RuleDefinition.GroupsDefinition;
import dev.oddsentry.core.evaluation.RuleEvaluator;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.queries.QueryRunner;
import dev.oddsentry.service.sources.Sources;
import java.util.ArrayList;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Tells an evaluator which groups it should find, even if they have no rows. */
@Component
class ExpectedGroups {
    private final DefinitionStore definitions;
    private final Sources sources;
    private final QueryRunner queries;

    ExpectedGroups(DefinitionStore definitions, Sources sources, QueryRunner queries) {
        this.definitions = definitions;
        this.sources = sources;
        this.queries = queries;
    }

    void tell(RuleEvaluator evaluator, GroupsDefinition groups, EvaluationInput input) {
        switch (groups.from()) {
            case null -> {}
            case OfLastChecks(int checks) -> input.past().groupsOfLast(checks).forEach(evaluator::expect);
            case OfQuery(var name) -> tellOfQuery(evaluator, groups, input, name);
        }
    }

    private void tellOfQuery(RuleEvaluator evaluator, GroupsDefinition groups, EvaluationInput input, String name) {
        var query = definitions
                .query(name)
                .orElseThrow(() -> new CheckFailureException(
                        FailureKind.NAMED_QUERY, "The query " + name + ", which groups come from, is gone."))
                .definition();
        var values = Parameters.valuesAt(input.moment(), input.rule(), query);
        queries.readAll(sources.require(query.source()), query, values, columns -> {
            var per = groups.per().stream()
                    .map(column -> columns.indexOf(column, false)
                            .orElseThrow(() -> new CheckFailureException(
                                    FailureKind.NAMED_QUERY,
                                    "The query " + name + ", which groups come from, returns no column " + column
                                            + ".")))
                    .toList();
            return row -> {
                var group = new ArrayList<@Nullable Object>();
                per.forEach(index -> group.add(row[index]));
                evaluator.expect(group);
            };
        });
    }
}
