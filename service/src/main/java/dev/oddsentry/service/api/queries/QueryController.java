package dev.oddsentry.service.api.queries;

import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.queries.ColumnValues;
import dev.oddsentry.service.queries.ParameterChoices;
import dev.oddsentry.service.queries.QueryTrials;
import dev.oddsentry.service.queries.QueryViews;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Queries: those that are saved, and the one that is being written. */
@RestController
@RequestMapping(path = "/api", produces = "application/json")
class QueryController {
    private final QueryViews views;
    private final QueryTrials trials;
    private final ParameterChoices choosing;
    private final ColumnValues columnValues;

    QueryController(QueryViews views, QueryTrials trials, ParameterChoices choosing, ColumnValues columnValues) {
        this.views = views;
        this.trials = trials;
        this.choosing = choosing;
        this.columnValues = columnValues;
    }

    @GetMapping("/queries")
    List<QueryViews.QuerySummary> listQueries() {
        return views.all();
    }

    @GetMapping("/queries/{name}")
    QueryViews.QueryPage getQuery(@PathVariable String name) {
        return views.page(name);
    }

    /**
     * @param document a query's document, as YAML or JSON; it need not be saved
     * @param values of parameters by name, as a rule would write them; the document's defaults hold for the others
     * @param zone of the query's session and of relative dates; the source's own if absent
     * @param calendar whose working days and periods they go by; Monday to Friday and months if absent
     * @param rows how many of the first rows are given; 200 if absent
     */
    record QueryRunBody(
            @NotBlank @Size(max = 500_000) String document,
            @Nullable Map<String, String> values,
            @Nullable String zone,
            @Nullable String calendar,
            @Nullable @Min(1) @Max(QueryTrials.MOST_ROWS) Integer rows) {}

    /** Runs it to its end, for its first rows, their number and the time it takes. */
    @PostMapping("/query-runs")
    QueryTrials.QueryRunResult runQuery(@AuthenticationPrincipal Person by, @Valid @RequestBody QueryRunBody body) {
        return trials.run(
                by,
                body.document(),
                body.values() == null ? Map.of() : body.values(),
                body.zone(),
                body.calendar(),
                body.rows());
    }

    /** What one of its parameters may be, as its choices say; empty where anything. */
    @GetMapping("/queries/{name}/choices/{parameter}")
    ParameterChoices.ParameterChoiceList listChoices(@PathVariable String name, @PathVariable String parameter) {
        return choosing.of(name, parameter);
    }

    /**
     * @param column of the result
     * @param values of parameters by name, as a rule would write them; the query's defaults hold for the others
     * @param zone of the query's session and of relative dates; the source's own if absent
     * @param calendar whose working days and periods they go by; Monday to Friday and months if absent
     */
    record ColumnValuesBody(
            @NotBlank String column,
            @Nullable Map<String, String> values,
            @Nullable String zone,
            @Nullable String calendar) {}

    /** The values that a column of the query has now, most frequent first, to choose from in a condition. */
    @PostMapping("/queries/{name}/column-values")
    ColumnValues.ColumnValueList listColumnValues(
            @PathVariable String name, @Valid @RequestBody ColumnValuesBody body) {
        return columnValues.of(
                name, body.column(), body.values() == null ? Map.of() : body.values(), body.zone(), body.calendar());
    }

    /** @param texts relative dates or plain ones, as parameters have them */
    record RelativeDatesBody(
            @Size(max = 50) List<@NotBlank @Size(max = 200) String> texts,
            @Nullable String zone,
            @Nullable String calendar) {}

    /** What relative dates mean at this moment. */
    @PostMapping("/relative-dates")
    List<QueryTrials.RelativeDateMeaning> resolveRelativeDates(@Valid @RequestBody RelativeDatesBody body) {
        return trials.mean(body.texts(), body.zone(), body.calendar());
    }
}
