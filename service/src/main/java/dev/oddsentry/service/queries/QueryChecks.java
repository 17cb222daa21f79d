package dev.oddsentry.service.queries;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.document.FieldPlaces;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.sources.Source;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;

/** Checks a query before it is saved: its text, its parameters, and what its source says of it. */
@Component
public class QueryChecks {
    private final Sources sources;
    private final Visibility visibility;
    private final QueryRunner runner;
    private final VisibleDefinitions visible;

    QueryChecks(Sources sources, QueryRunner runner, Visibility visibility, VisibleDefinitions visible) {
        this.visible = visible;
        this.visibility = visibility;
        this.sources = sources;
        this.runner = runner;
    }

    /** @param warnings what is doubtful though it runs */
    public record Checked(Columns columns, List<Problem> warnings) {}

    /**
     * What it returns.
     *
     * @throws InvalidDefinitionException with every problem found
     */
    public Checked check(QueryDefinition query, FieldPlaces places) {
        var problems = new ArrayList<Problem>();
        SqlText.problem(query.sql()).ifPresent(problem -> problems.add(places.locate("sql", problem)));
        problems.addAll(Parameters.problemsOf(query, places));
        var source = sources.find(query.source()).filter(found -> visibility.mayUse(found) || isAsSaved(query));
        if (source.isEmpty()) problems.add(places.locate("source", unknownSource(query)));
        if (!problems.isEmpty()) throw new InvalidDefinitionException(problems);
        var warnings = SqlText.readsClock(query.sql()).stream()
                .map(problem -> places.locate("sql", problem))
                .toList();
        return new Checked(describe(source.orElseThrow(), query, places), warnings);
    }

    /** Another text would read other tables; everybody who sees the query may change its labels. */
    private boolean isAsSaved(QueryDefinition query) {
        return visible.query(query.name())
                .map(DefinitionStore.Current::definition)
                .filter(kept ->
                        kept.source().equals(query.source()) && kept.sql().equals(query.sql()))
                .isPresent();
    }

    private Problem unknownSource(QueryDefinition query) {
        var names = sources.all().stream()
                .filter(visibility::mayUse)
                .map(Source::name)
                .toList();
        return Problem.error("there is no source \"" + query.source() + "\"", "", null)
                .suggesting(Nearest.to(query.source(), names).orElse(null));
    }

    private Columns describe(Source source, QueryDefinition query, FieldPlaces places) {
        try {
            Columns columns = runner.describe(source, query);
            var unknown = query.columns().keySet().stream()
                    .filter(name -> columns.indexOf(name, true).isEmpty())
                    .toList();
            var badLinks = links(query, columns, places);
            if (!badLinks.isEmpty()) throw new InvalidDefinitionException(badLinks);
            if (unknown.isEmpty()) return columns;
            throw new InvalidDefinitionException(unknown.stream()
                    .map(name -> unknownColumn(name, columns, places))
                    .toList());
        } catch (QueryFailureException refused) {
            throw new InvalidDefinitionException(
                    List.of(Problem.error(String.valueOf(refused.getMessage()), "sql", places.of("sql"))));
        }
    }

    /** Links that name columns which the query does not return. */
    private static List<Problem> links(QueryDefinition query, Columns columns, FieldPlaces places) {
        var problems = new ArrayList<Problem>();
        query.columns().forEach((name, meaning) -> {
            if (meaning.link() == null) return;
            for (String named : meaning.link().columns())
                if (columns.indexOf(named, true).isEmpty())
                    problems.add(Problem.error(
                                    "the link names a column \"" + named + "\", but the query returns "
                                            + String.join(", ", columns.names()),
                                    "columns." + name + ".link",
                                    places.of("columns." + name + ".link"))
                            .suggesting(Nearest.to(named, columns.names()).orElse(null)));
        });
        return problems;
    }

    private static Problem unknownColumn(String name, Columns columns, FieldPlaces places) {
        String message = "the query returns no column \"" + name + "\" but " + String.join(", ", columns.names());
        return Problem.error(message, "columns." + name, places.of("columns." + name + ".label"))
                .suggesting(Nearest.to(name, columns.names()).orElse(null));
    }
}
