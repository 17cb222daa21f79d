package dev.oddsentry.service.evaluation;

import dev.oddsentry.core.definition.RuleDefinition.ExpectedGroups.OfLastChecks;
import dev.oddsentry.core.definition.RuleDefinition.ExpectedGroups.OfQuery;
import dev.oddsentry.core.definition.RuleDefinition.GroupsDefinition;
import dev.oddsentry.core.judging.RuleJudge;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.queries.QueryRunner;
import dev.oddsentry.service.sources.Sources;
import java.util.ArrayList;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Tells a judge which groups it should find, even if they have no rows. */
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

    void tell(RuleJudge judge, GroupsDefinition groups, EvaluationInput question) {
        switch (groups.from()) {
            case null -> {}
            case OfLastChecks(int checks) ->
                question.past().groupsOfLast(checks).forEach(judge::expect);
            case OfQuery(var name) -> tellOfQuery(judge, groups, question, name);
        }
    }

    private void tellOfQuery(RuleJudge judge, GroupsDefinition groups, EvaluationInput question, String name) {
        var query = definitions
                .query(name)
                .orElseThrow(() ->
                        new CheckFailureException("The query " + name + ", which groups come from, is gone.", null))
                .definition();
        var values = Parameters.valuesAt(question.moment(), question.rule(), query);
        queries.readAll(sources.require(query.source()), query, values, columns -> {
            var per = groups.per().stream()
                    .map(column -> columns.indexOf(column, false)
                            .orElseThrow(() -> new CheckFailureException(
                                    "The query " + name + ", which groups come from, returns no column " + column + ".",
                                    null)))
                    .toList();
            return row -> {
                var group = new ArrayList<@Nullable Object>();
                per.forEach(index -> group.add(row[index]));
                judge.expect(group);
            };
        });
    }
}
