package dev.oddsentry.service.queries;

import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.time.RelativeDate;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.web.RefusedException;
import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Runs a query that is being written, read-only and within its source's limits. Nothing is kept but that someone did so. */
@Component
public class QueryTrials {
    /** All that a person can want to look at, and that an answer should hold. */
    public static final int MOST_ROWS = 20_000;

    private static final int USUAL_ROWS = 200;

    private final QueryChecks checks;
    private final QueryRunner runner;
    private final Sources sources;
    private final TrialInputs inputs;
    private final Audit audit;
    private final DSLContext db;

    QueryTrials(
            QueryChecks checks, QueryRunner runner, Sources sources, TrialInputs inputs, Audit audit, DSLContext db) {
        this.checks = checks;
        this.runner = runner;
        this.sources = sources;
        this.inputs = inputs;
        this.audit = audit;
        this.db = db;
    }

    /**
     * @param rowsRead of the whole result
     * @param zone in which the query was run: the one that was chosen, else the source's own
     * @param values what each parameter was, in words
     * @param rows the first of them, texts in the order of the columns
     */
    public record QueryRunResult(
            long rowsRead,
            long tookMillis,
            String zone,
            Map<String, String> values,
            List<ResultColumn> columns,
            List<List<@Nullable String>> rows,
            List<Problem> warnings) {}

    record ResultColumn(String name, String type, String label) {}

    /** @param means the moment in the zone; null where the text is none, which {@code refused} says */
    public record RelativeDateMeaning(
            String text, @Nullable String means, @Nullable String refused) {}

    /** @throws InvalidDefinitionException with every problem of the document and its place */
    public QueryRunResult run(
            Person by,
            String text,
            Map<String, String> given,
            @Nullable String zone,
            @Nullable String calendar,
            @Nullable Integer mostRows) {
        int most = mostRows == null ? USUAL_ROWS : mostRows;
        var document = Document.read(text);
        if (!(document.definition() instanceof QueryDefinition query))
            throw RefusedException.invalid(
                    "This is a " + document.definition().kind().code() + "; a query can be run.");
        var checked = checks.check(query, document.places());
        var moment = inputs.moment(query, zone, calendar);
        var values = TrialInputs.values(query, given, moment);
        audit.record(db, by.id(), AuditAct.RUN_QUERY, query.name(), RunWords.of(query, words(values, moment.zone())));
        var rows = new ArrayList<List<@Nullable String>>();
        try {
            var source = sources.require(query.source());
            var reading = runner.read(
                    source,
                    query,
                    new QueryInput(values, moment.zone()),
                    _ -> row -> {
                        if (rows.size() < most) rows.add(texts(row, moment.zone()));
                    },
                    new RunningQuery(source.timeLimit()));
            var columns = reading.columns().inOrder().stream()
                    .map(column -> new ResultColumn(
                            column.name(),
                            column.type().code(),
                            query.meaningOf(column.name()).label()))
                    .toList();
            return new QueryRunResult(
                    reading.rows(),
                    reading.took().toMillis(),
                    moment.zone().getId(),
                    words(values, moment.zone()),
                    columns,
                    rows,
                    checked.warnings());
        } catch (QueryFailureException failed) {
            throw RefusedException.invalid(String.valueOf(failed.getMessage()));
        }
    }

    private static Map<String, String> words(Map<String, @Nullable Object> values, ZoneId zone) {
        var words = new LinkedHashMap<String, String>();
        values.forEach((name, value) -> words.put(
                name,
                value == null
                        ? "no value"
                        : value instanceof List<?> several
                                ? CellText.joined(several, zone)
                                : CellText.of(value, zone)));
        return words;
    }

    private static List<@Nullable String> texts(@Nullable Object[] row, ZoneId zone) {
        var texts = new ArrayList<@Nullable String>(row.length);
        for (Object cell : row) texts.add(cell == null ? null : CellText.brief(cell, zone));
        return texts;
    }

    public List<RelativeDateMeaning> mean(List<String> texts, @Nullable String zone, @Nullable String calendar) {
        var moment = inputs.moment(zone, calendar);
        return texts.stream().map(text -> mean(text, moment)).toList();
    }

    private static RelativeDateMeaning mean(String text, Moment moment) {
        try {
            var at = RelativeDate.parse(text).localAt(moment).atZone(moment.zone());
            return new RelativeDateMeaning(text, at.toOffsetDateTime().toString(), null);
        } catch (InvalidDefinitionException refused) {
            return new RelativeDateMeaning(
                    text, null, refused.problems().getFirst().message());
        } catch (DateTimeException outOfRange) {
            return new RelativeDateMeaning(text, null, "that is further off than dates go");
        }
    }
}
