package dev.oddsentry.service.authoring;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.DeliveryDefinition;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.document.FieldPlaces;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.visibility.Visibility;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Whether the other queries that a rule names are there, have the columns that are asked of them, and get the values that they ask for. */
@Component
class OtherQueries {
    private final DefinitionStore store;
    private final Visibility visibility;
    private final MailChecks mail;

    OtherQueries(DefinitionStore store, MailChecks mail, Visibility visibility) {
        this.visibility = visibility;
        this.store = store;
        this.mail = mail;
    }

    /** The query that says who hears has the split's column and the addresses. */
    List<Problem> splitProblems(RuleDefinition rule, FieldPlaces places) {
        var split = rule.delivery().split();
        if (split == null || split.from() == null) return List.of();
        String field = "delivery.split_from";
        var query = store.query(split.from());
        if (query.isEmpty()) return List.of(noQuery(split.from(), field, places));
        var problems = new ArrayList<>(missingValues(rule, query.get().definition(), field, places));
        problems.addAll(
                missingColumns(query.get(), List.of(split.by(), DeliveryDefinition.Split.ADDRESS), field, places));
        return problems;
    }

    /** The queries whose rows go with the mail are there, with the columns that are asked of them. */
    List<Problem> alsoSentProblems(RuleDefinition rule, FieldPlaces places) {
        var problems = new ArrayList<Problem>();
        var all = rule.delivery().alsoSent();
        var split = rule.delivery().split();
        for (int i = 0; i < all.size(); i++) {
            var also = all.get(i);
            String field = "delivery.also_send[" + i + "]";
            var query = store.query(also.query());
            if (query.isEmpty()) {
                problems.add(noQuery(also.query(), field + ".query", places));
                continue;
            }
            problems.addAll(missingValues(rule, query.get().definition(), field + ".query", places));
            // Without it an audience would see the rows of another.
            if (split != null)
                problems.addAll(missingColumns(query.get(), List.of(split.by()), field + ".query", places));
            problems.addAll(mail.fileNames(also.attachments(), field, places));
            if (also.layout() == null) continue;
            var layout = store.layout(also.layout());
            if (layout.isEmpty())
                problems.add(places.locate(
                        field + ".layout",
                        Problem.error("there is no layout \"" + also.layout() + "\"", "", null)
                                .suggesting(Nearest.to(
                                                also.layout(),
                                                visibility
                                                        .now()
                                                        .names(
                                                                Definition.Kind.LAYOUT,
                                                                store.names(Definition.Kind.LAYOUT)))
                                        .orElse(null))));
            else {
                refusePrivate(also.layout(), field + ".layout", places).ifPresent(problems::add);
                problems.addAll(missingColumns(
                        query.get(),
                        List.copyOf(layout.get().definition().layout().columnNames()),
                        field + ".layout",
                        places));
            }
        }
        return problems;
    }

    /** A rule is its team's, and its mail must not change with what one person keeps for themselves. */
    Optional<Problem> refusePrivate(String layout, String field, FieldPlaces places) {
        return store.layout(layout)
                .filter(found -> found.definition().privateTo() != null)
                .map(_ -> places.locate(
                        field,
                        Problem.error(
                                "the layout " + layout + " is private; a rule needs one that is everybody's",
                                "",
                                null)));
    }

    /** The recipient query has the columns that are named, and gives values that the rule's query asks for. */
    List<Problem> copiesProblems(RuleDefinition rule, QueryDefinition watched, FieldPlaces places) {
        var copies = rule.copies();
        if (copies == null) return List.of();
        var problems = new ArrayList<Problem>();
        for (String parameter : copies.parameters().keySet()) {
            if (watched.parameters().containsKey(parameter)) continue;
            problems.add(places.locate(
                    "copies.parameters." + parameter,
                    Problem.error("the query " + watched.name() + " has no parameter " + parameter, "", null)
                            .suggesting(
                                    Nearest.to(parameter, watched.parameters().keySet())
                                            .orElse(null))));
        }
        String field = "copies.from";
        var query = store.query(copies.from());
        if (query.isEmpty()) {
            problems.add(noQuery(copies.from(), field, places));
            return problems;
        }
        // It says whose the copies are, so what a copy gives is not known yet.
        problems.addAll(missingValues(rule.withoutCopies(), query.get().definition(), field, places));
        problems.addAll(missingColumns(query.get(), List.of(copies.key()), "copies.key", places));
        problems.addAll(missingColumns(query.get(), List.of(copies.address()), "copies.address", places));
        if (copies.greeting() != null)
            problems.addAll(missingColumns(query.get(), List.of(copies.greeting()), "copies.greeting", places));
        copies.parameters()
                .forEach((parameter, column) -> problems.addAll(
                        missingColumns(query.get(), List.of(column), "copies.parameters." + parameter, places)));
        return problems;
    }

    private List<Problem> missingColumns(
            DefinitionStore.Current<QueryDefinition> query, List<String> wanted, String field, FieldPlaces places) {
        var columns = store.columns(query);
        return wanted.stream()
                .filter(column -> columns.indexOf(column, false).isEmpty())
                .map(column -> places.locate(
                        field,
                        Problem.error(
                                "the query " + query.definition().name() + " returns no column " + column + "; it has "
                                        + String.join(", ", columns.names()),
                                "",
                                null)))
                .toList();
    }

    /** The query that groups come from has the rule's group columns, and asks for no value that nobody gives. */
    List<Problem> groupsProblems(RuleDefinition rule, String name, FieldPlaces places) {
        var query = store.query(name);
        if (query.isEmpty()) return List.of(noQuery(name, "expected_groups", places));
        var problems = new ArrayList<Problem>();
        var per = rule.groups() == null ? List.<String>of() : rule.groups().per();
        problems.addAll(missingColumns(query.get(), per, "expected_groups", places));
        problems.addAll(missingValues(rule, query.get().definition(), "expected_groups", places));
        return problems;
    }

    Problem noQuery(String name, String field, FieldPlaces places) {
        return places.locate(
                field,
                Problem.error("there is no query \"" + name + "\"", "", null)
                        .suggesting(Nearest.to(
                                        name,
                                        visibility
                                                .now()
                                                .names(Definition.Kind.QUERY, store.names(Definition.Kind.QUERY)))
                                .orElse(null)));
    }

    static List<Problem> missingValues(RuleDefinition rule, QueryDefinition query, String field, FieldPlaces places) {
        return query.parameters().entrySet().stream()
                .filter(declared -> declared.getValue().defaultValue() == null
                        && !declared.getValue().optional()
                        && !Parameters.isGiven(rule, declared.getKey()))
                .map(declared -> places.locate(
                        field,
                        Problem.error(
                                "the query " + query.name() + " needs a value for " + declared.getKey(), "", null)))
                .toList();
    }
}
