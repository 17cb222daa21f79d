package dev.oddsentry.testkit;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.core.finding.Digester;
import dev.oddsentry.core.history.Series;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** PostgreSQL says which groups a condition over aggregates holds for, of random rows; a group without rows is the whole result. */
class AggregatesOracleTest {
    private static final int ROUNDS = Integer.getInteger("odd.rounds", 300);
    private static final int CONDITIONS = 20;
    private static final Columns COLUMNS = Columns.of(
            new Column("g", Type.TEXT),
            new Column("x", Type.NUMBER),
            new Column("k", Type.NUMBER),
            new Column("t", Type.TEXT));
    private static final Moment SLOT = new Moment(Instant.parse("2026-06-01T04:40:00Z"), ZoneId.of("Europe/Oslo"));

    private final long seed = Long.getLong("odd.seed", System.nanoTime());
    private final Random random = new Random(seed);

    private record Pair(String ours, String postgres) {}

    @Test
    void judgesEveryGroupAsPostgresqlDoes() throws SQLException {
        int[] outcomes = new int[2];
        try (var postgres = ThrowAwayPostgres.start();
                var connection =
                        DriverManager.getConnection(postgres.jdbcUrl("postgres"), ThrowAwayPostgres.USER, "")) {
            prepare(connection);
            for (int round = 0; round < ROUNDS; round++) {
                var rows = randomRows(connection);
                for (int i = 0; i < CONDITIONS; i++) {
                    var condition = condition(2);
                    boolean whole = random.nextBoolean();
                    var theirs = theirs(connection, condition.postgres, whole);
                    assertThat(ours(condition.ours, rows, whole))
                            .as("seed " + seed + "\nours:     " + condition.ours + "\npostgres: " + condition.postgres)
                            .isEqualTo(theirs);
                    theirs.values().forEach(holds -> outcomes[holds ? 1 : 0]++);
                }
            }
        }
        System.out.println("compared " + (outcomes[0] + outcomes[1]) + " groups with PostgreSQL: " + outcomes[1]
                + " true, " + outcomes[0] + " not; seed " + seed);
        assertThat(Arrays.stream(outcomes)).as("both occur").allMatch(count -> count > ROUNDS);
    }

    private static void prepare(Connection connection) throws SQLException {
        try (var statement = connection.createStatement()) {
            statement.execute("create table cells (g text, x numeric, k bigint, t text collate \"C\")");
            statement.execute("""
                    create function pct(sorted numeric[], percent numeric) returns numeric language sql as $$
                      select sorted[floor(at)::int + 1] + (at - floor(at)) * (sorted[ceil(at)::int + 1] - sorted[floor(at)::int + 1])
                        from (select percent / 100 * (cardinality(sorted) - 1) as at) place $$""");
        }
    }

    private ArrayList<Object[]> randomRows(Connection connection) throws SQLException {
        var rows = new ArrayList<Object[]>();
        try (var statement = connection.createStatement();
                var insert = connection.prepareStatement("insert into cells values (?, ?, ?, ?)")) {
            statement.execute("truncate cells");
            int count = random.nextInt(5) == 0 ? 0 : random.nextInt(40);
            for (int i = 0; i < count; i++) {
                Object[] row = {
                    maybe(any("Holm – Vik", "å", "", "b ")),
                    maybe(BigDecimal.valueOf(random.nextInt(2000) - 500, random.nextInt(3))),
                    maybe((long) random.nextInt(8)),
                    maybe(any("ﬀ", "😀", "Z", "a", "a "))
                };
                for (int column = 0; column < row.length; column++) insert.setObject(column + 1, row[column]);
                insert.addBatch();
                rows.add(row);
            }
            insert.executeBatch();
        }
        return rows;
    }

    private @Nullable Object maybe(Object value) {
        return random.nextInt(5) == 0 ? null : value;
    }

    @SafeVarargs
    private <T> T any(T... choices) {
        return choices[random.nextInt(choices.length)];
    }

    private Pair condition(int depth) {
        if (depth == 0 || random.nextInt(3) == 0) return comparison();
        var left = condition(depth - 1);
        if (random.nextInt(4) == 0) return new Pair("not (" + left.ours + ")", "not (" + left.postgres + ")");
        var right = condition(depth - 1);
        String word = any(" and ", " or ");
        return new Pair("(" + left.ours + word + right.ours + ")", "(" + left.postgres + word + right.postgres + ")");
    }

    private Pair comparison() {
        String sign = any(" = ", " <> ", " < ", " <= ", " > ", " >= ");
        if (random.nextInt(6) == 0) {
            String least = any("min(t)", "max(t)") + filter();
            return with(new Pair(least, least), sign, any("'a'", "'😀'", "'Z'"));
        }
        var number = random.nextInt(4) == 0 ? inexact() : exact();
        if (random.nextInt(6) == 0) return with(number, any(" is null", " is not null"), "");
        // What is rounded somewhere never stands at an equality.
        String safe =
                number.postgres.contains("avg") || number.postgres.contains("stddev") || number.postgres.contains("/")
                        ? any(" < ", " > ")
                        : sign;
        return with(number, safe, any("0", "1", "3.5", "12.75", "100", "0.3"));
    }

    private static Pair with(Pair pair, String sign, String literal) {
        return new Pair(pair.ours + sign + literal, pair.postgres + sign + literal);
    }

    private String filter() {
        return any("", "", " filter (where k > 2)", " filter (where t = 'a' or x is null)");
    }

    private Pair exact() {
        String filter = filter();
        String column = any("x", "k");
        return any(
                new Pair("count()" + filter, "count(*)" + filter),
                same("count(" + column + ")" + filter),
                same("count(distinct t)" + filter),
                same("count(distinct x)" + filter),
                same("sum(" + column + ")" + filter),
                same("min(" + column + ")" + filter),
                same("max(" + column + ")" + filter),
                percentile("median(" + column + ")", column, 50, filter),
                percentile("percentile(" + column + ", 95)", column, 95, filter),
                new Pair("(max(x) - min(x) + count())", "(max(x) - min(x) + count(*))"));
    }

    private Pair inexact() {
        String filter = filter();
        return any(
                same("avg(x)" + filter),
                same("avg(k)" + filter),
                new Pair("stddev(x)" + filter, "stddev_samp(x)" + filter),
                new Pair("share(where k > 3)", "(count(*) filter (where k > 3) / nullif(count(*), 0)::numeric)"),
                new Pair("(sum(x) / nullif(count(x), 0))", "(sum(x) / nullif(count(x), 0))"));
    }

    private static Pair same(String text) {
        return new Pair(text, text);
    }

    private static Pair percentile(String ours, String column, int percent, String filter) {
        String present = filter.isEmpty()
                ? " filter (where " + column + " is not null)"
                : filter.replace("(where ", "(where (").replaceFirst("\\)$", ") and " + column + " is not null)");
        return new Pair(
                ours + filter,
                "pct(array_agg(" + column + "::numeric order by " + column + ")" + present + ", " + percent + ")");
    }

    private static Map<String, Boolean> theirs(Connection connection, String condition, boolean whole)
            throws SQLException {
        var groups = new TreeMap<String, Boolean>();
        String query = whole
                ? "select 'all', coalesce(" + condition + ", false) from cells"
                : "select coalesce(g, 'missing'), coalesce(" + condition + ", false) from cells group by g";
        try (var statement = connection.createStatement();
                var result = statement.executeQuery(query)) {
            while (result.next()) groups.put(result.getString(1), result.getBoolean(2));
        }
        return groups;
    }

    private static Map<String, Boolean> ours(String condition, ArrayList<Object[]> rows, boolean whole) {
        var rule = (RuleDefinition)
                Document.read("""
                        kind: rule
                        name: groups
                        owner: Traffic reporting
                        query: cells
                        zone: Europe/Oslo
                        per: [%s]
                        exceptions: "%s"
                        delivery: { to: [ines.holm@skerryline.example] }
                        """.formatted(whole ? "" : "g", condition)).definition();
        var evaluator = CheckedRule.check(rule, COLUMNS, Thresholds.NONE, null)
                .conditions()
                .at(SLOT, new Digester(7));
        for (var row : rows) evaluator.accept(row, _ -> {});
        var groups = new TreeMap<String, Boolean>();
        evaluator.finish((_, _) -> Series.EMPTY, sighting -> {
            Object group =
                    sighting.identity().isEmpty() ? "all" : sighting.identity().getFirst();
            groups.put(group == null ? "missing" : group.toString(), sighting.isException());
        });
        return groups;
    }
}
