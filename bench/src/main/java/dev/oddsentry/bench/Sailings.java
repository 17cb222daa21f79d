package dev.oddsentry.bench;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.core.evaluation.RuleEvaluator;
import dev.oddsentry.core.finding.Digester;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.queries.QueryInput;
import dev.oddsentry.service.queries.QueryRunner;
import dev.oddsentry.service.queries.RunningQuery;
import dev.oddsentry.service.sources.Source;
import dev.oddsentry.service.sources.Sources;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** 50,000 rows of 12 columns in a PostgreSQL of its own, a query on them and two rules that evaluate them. */
final class Sailings {
    static final int ROWS = 50_000;
    static final Moment SLOT = new Moment(Instant.parse("2026-11-24T04:40:00Z"), ZoneId.of("Europe/Oslo"));

    /** Every comparison is calculated on almost every row, since only the last leaves many out. */
    static final String FIVE_COMPARISONS = "heads <= tickets and status <> 'cancelled' and fare between 1 and 500"
            + " and planned >= timestamp '2020-01-01 00:00' and delay_min > threshold_min";

    private static final String QUERY = """
            kind: query
            name: sailings
            source: ferry
            sql: select * from sailing
            """;
    private static final String RULES = """
            kind: rule
            name: %s
            title: Late sailings
            owner: Traffic reporting
            query: sailings
            zone: Europe/Oslo
            %s
            delivery: { to: [ines.holm@skerryline.example] }
            """;
    private static final String FIVE_AGGREGATES =
            "count() > 1 and sum(heads) > 5 and avg(fare) > 3 and max(delay_min) > 15 and share(where status = 'sailed') > 0.1";

    private final RunningService service = RunningService.get();
    private final QueryRunner runner = service.bean(QueryRunner.class);
    private final Source source;
    private final QueryDefinition query;
    private final Columns columns;
    private final List<Object[]> rows = new ArrayList<>(ROWS);
    private final CheckedRule ofRows;
    private final CheckedRule ofGroups;

    Sailings() {
        service.ferry("drop table if exists sailing");
        service.ferry("""
                create table sailing as select i as sailing_id, 'SK-' || i as sailing, 'Holm – ' || chr(65 + i %% 26) as route,
                'Tjelden' as vessel, timestamptz '2026-11-01 04:00+01' + i * interval '1 minute' as planned,
                timestamptz '2026-11-01 04:07+01' + i * interval '1 minute' as sailed, i %% 40 as delay_min, 15 as threshold_min,
                i %% 300 as heads, i %% 300 + 2 as tickets, (i %% 400 + 1)::numeric(8, 2) as fare, 'sailed' as status
                from generate_series(1, %d) i""".formatted(ROWS));
        service.ferry("analyze sailing");
        var api = service.api();
        api.push(QUERY);
        api.push(RULES.formatted("late", "exceptions: " + FIVE_COMPARISONS + "\nmemory: { key: [sailing_id] }"));
        api.push(RULES.formatted("by-route", "per: [route]\nexceptions: " + FIVE_AGGREGATES));
        var definitions = service.bean(DefinitionStore.class);
        var saved = definitions.query("sailings").orElseThrow();
        query = saved.definition();
        columns = definitions.columns(saved);
        source = unlimited(service.bean(Sources.class).require("ferry"));
        ofRows = conditions(definitions, "late");
        ofGroups = conditions(definitions, "by-route");
        runner.read(
                source,
                query,
                new QueryInput(Map.of(), ZoneOffset.UTC),
                _ -> rows::add,
                new RunningQuery(source.timeLimit()));
    }

    private CheckedRule conditions(DefinitionStore definitions, String rule) {
        return CheckedRule.check(definitions.rule(rule).orElseThrow().definition(), columns, Thresholds.NONE, null)
                .conditions();
    }

    private static Source unlimited(Source source) {
        return new Source(
                source.id(),
                source.name(),
                source.jdbcUrl(),
                source.username(),
                Long.MAX_VALUE,
                Duration.ofMinutes(5),
                source.mostConnections(),
                source.closedHours(),
                source.spread(),
                source.teams(),
                source.updatedAt());
    }

    /** The process is ended without its shutdown hooks, so the server has to be stopped here. */
    void stop() {
        service.postgres().close();
    }

    /** Reads every row as a check does. */
    void read(QueryRunner.RowSink sink) {
        runner.read(
                source,
                query,
                new QueryInput(Map.of(), ZoneOffset.UTC),
                _ -> sink,
                new RunningQuery(source.timeLimit()));
    }

    List<Object[]> rows() {
        return rows;
    }

    Columns columns() {
        return columns;
    }

    RuleEvaluator judgeOfRows() {
        return ofRows.at(SLOT, new Digester(7));
    }

    RuleEvaluator judgeOfGroups() {
        return ofGroups.at(SLOT, new Digester(7));
    }
}
