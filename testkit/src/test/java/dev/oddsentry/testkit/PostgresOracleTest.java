package dev.oddsentry.testkit;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.condition.Condition;
import dev.oddsentry.core.condition.RowEvaluator;
import dev.oddsentry.core.condition.RowFailureException;
import dev.oddsentry.core.condition.Verdict;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** PostgreSQL says whether our conditions mean what SQL's do: true, not true, or an error, for random rows and random conditions. */
class PostgresOracleTest {
    private static final int ROWS = 40;
    private static final int PAIRS = Integer.getInteger("odd.pairs", 24_000);
    private static final Instant SLOT = Instant.parse("2026-06-01T04:40:00Z");
    private static final Columns COLUMNS = Columns.of(
            new Column("n", Type.NUMBER),
            new Column("m", Type.NUMBER),
            new Column("i", Type.NUMBER),
            new Column("t", Type.TEXT),
            new Column("a", Type.TEXT),
            new Column("v", Type.TEXT),
            new Column("c", Type.TEXT),
            new Column("d", Type.DATE),
            new Column("e", Type.DATE),
            new Column("ts", Type.TIMESTAMP),
            new Column("tz", Type.INSTANT),
            new Column("tz2", Type.INSTANT),
            new Column("b", Type.TRUTH));

    private final long seed = Long.getLong("odd.seed", System.nanoTime());
    private final Random random = new Random(seed);

    @Test
    void judgesEveryRowAsPostgresqlDoes() throws SQLException {
        try (var postgres = ThrowAwayPostgres.start();
                var connection =
                        DriverManager.getConnection(postgres.jdbcUrl("postgres"), ThrowAwayPostgres.USER, "")) {
            prepare(connection);
            int compared = 0;
            var outcomes = new int[3];
            while (compared < PAIRS) {
                var rows = randomRows(connection);
                var expressions = new SharedExpressions(random);
                for (int i = 0; i < 25; i++) {
                    var pair = expressions.condition(3);
                    var theirs = theirs(connection, pair.postgres());
                    var ours = ours(pair.ours(), rows);
                    assertThat(ours)
                            .as("seed " + seed + "\nours:     " + pair.ours() + "\npostgres: " + pair.postgres()
                                    + "\nrows: " + words(rows, ours, theirs))
                            .isEqualTo(theirs);
                    for (String each : theirs)
                        outcomes[List.of("true", "not", "error").indexOf(each)]++;
                    compared += ROWS;
                }
            }
            System.out.println("compared " + compared + " pairs with PostgreSQL: " + outcomes[0] + " true, "
                    + outcomes[1] + " not, " + outcomes[2] + " errors; seed " + seed);
            assertThat(Arrays.stream(outcomes)).as("all three kinds occur").allMatch(count -> count > PAIRS / 2_000);
        }
    }

    private static void prepare(Connection connection) throws SQLException {
        try (var statement = connection.createStatement()) {
            statement.execute("set timezone to 'Europe/Oslo'");
            statement.execute(
                    "create table cells (id int primary key, n numeric, m numeric, i bigint, t text, a text, v text, c char(6), d date, e date,"
                            + " ts timestamp, tz timestamptz, tz2 timestamptz, b boolean)");
            statement.execute(
                    "create function slot() returns timestamptz language sql stable as $$ select timestamptz '" + SLOT
                            + "' $$");
            statement.execute(
                    "create function judged(expression text, row_id int) returns text language plpgsql as $$ declare r boolean; begin"
                            + " execute 'select (' || expression || ') from cells where id = ' || row_id into r; return case when r then 'true' else 'not' end;"
                            + " exception when others then return 'error'; end $$");
        }
    }

    private List<Object[]> randomRows(Connection connection) throws SQLException {
        try (var statement = connection.createStatement()) {
            statement.execute("truncate cells");
        }
        try (var insert =
                connection.prepareStatement("insert into cells values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)")) {
            for (int id = 0; id < ROWS; id++) {
                Object[] row = {
                    number(),
                    number(),
                    any(0L, 1L, -1L, 2L, 8L, 5L, 4L, Long.MAX_VALUE, Long.MIN_VALUE),
                    text(),
                    any("", "a", "Abc", "ab ", "xyz"),
                    any("12.5", " 7 ", "abc", "", "-0", "1e3", ".5", "+4."),
                    any("ab", "abc", "", "x  "),
                    date(),
                    date(),
                    timestamp(),
                    instant(),
                    instant(),
                    any(true, false)
                };
                insert.setInt(1, id);
                for (int i = 0; i < row.length; i++) insert.setObject(i + 2, random.nextInt(6) == 0 ? null : row[i]);
                insert.addBatch();
            }
            insert.executeBatch();
        }
        var rows = new ArrayList<Object[]>();
        try (var statement = connection.createStatement();
                var result = statement.executeQuery("select * from cells order by id")) {
            while (result.next()) rows.add(row(result));
        }
        return rows;
    }

    @SafeVarargs
    private <T> T any(T... choices) {
        return choices[random.nextInt(choices.length)];
    }

    private BigDecimal number() {
        return any(
                new BigDecimal("0"),
                new BigDecimal("0.00"),
                new BigDecimal("2.5"),
                new BigDecimal("-2.5"),
                new BigDecimal("15"),
                new BigDecimal("0.1"),
                new BigDecimal("1E-30"),
                new BigDecimal("123456789012345678901234567890.123456789"),
                new BigDecimal("-1E+60"),
                BigDecimal.valueOf(random.nextInt(2_000) - 1_000, 2));
    }

    private String text() {
        return any(
                "", " ", "a", "abc", "ab ", "  x ", "it's", "å", "aå!", "😀", "a😀c", "ﬀ", "10%", "100%", "\uffff",
                "x_y");
    }

    private LocalDate date() {
        return any(
                LocalDate.of(2026, 3, 29),
                LocalDate.of(2026, 1, 31),
                LocalDate.of(2026, 10, 25),
                LocalDate.of(2024, 2, 29),
                LocalDate.of(2026, 1, 1).plusDays(random.nextInt(300)));
    }

    /**
     * Times that spring skips are among them; none that autumn repeats, nor any that a shift could bring there, since PostgreSQL takes
     * the second of them and we the first (a stated difference).
     */
    private LocalDateTime timestamp() {
        return any(
                LocalDateTime.of(2026, 3, 29, 2, 30),
                LocalDateTime.of(2026, 3, 29, 1, 59, 59),
                LocalDateTime.of(2026, 8, 31, 23, 59),
                LocalDateTime.of(2026, 3, 31, 12, 0),
                LocalDate.of(2026, 1, 1)
                        .plusDays(random.nextInt(240))
                        .atTime(12, random.nextInt(60), random.nextInt(60), random.nextInt(1_000_000) * 1_000));
    }

    private OffsetDateTime instant() {
        return any(
                        Instant.parse("2026-10-25T00:30:00Z"),
                        Instant.parse("2026-10-25T01:30:00Z"),
                        Instant.parse("2026-03-29T01:00:00Z"),
                        SLOT.minusSeconds(random.nextInt(20_000_000)),
                        SLOT)
                .atOffset(ZoneOffset.UTC);
    }

    private static Object[] row(ResultSet result) throws SQLException {
        var cells = new ArrayList<@Nullable Object>();
        for (var column : COLUMNS.inOrder()) {
            cells.add(
                    switch (column.type()) {
                        case NUMBER ->
                            column.name().equals("i") ? result.getObject("i") : result.getBigDecimal(column.name());
                        case DATE -> result.getObject(column.name(), LocalDate.class);
                        case TIMESTAMP -> result.getObject(column.name(), LocalDateTime.class);
                        case INSTANT -> instant(result.getObject(column.name(), OffsetDateTime.class));
                        case TRUTH -> result.getObject(column.name());
                        default -> unpadded(column.name(), result.getString(column.name()));
                    });
        }
        return cells.toArray();
    }

    private static @Nullable Instant instant(@Nullable OffsetDateTime value) {
        return value == null ? null : value.toInstant();
    }

    private static @Nullable String unpadded(String column, @Nullable String text) {
        return text == null || !column.equals("c") ? text : text.stripTrailing();
    }

    private static List<String> theirs(Connection connection, String expression) throws SQLException {
        try (PreparedStatement statement = connection.prepareStatement("select judged(?, id) from cells order by id")) {
            statement.setString(1, expression);
            var verdicts = new ArrayList<String>();
            try (var result = statement.executeQuery()) {
                while (result.next()) verdicts.add(result.getString(1));
            }
            return verdicts;
        }
    }

    private List<String> ours(String expression, List<Object[]> rows) {
        var reading = Condition.read(expression, COLUMNS);
        RowEvaluator evaluator = reading.condition()
                .orElseThrow(() -> new AssertionError("seed " + seed + ": " + expression + " " + reading.problems()))
                .at(new Moment(SLOT, ZoneId.of("Europe/Oslo")));
        return rows.stream().map(row -> verdict(evaluator, row)).toList();
    }

    private static String verdict(RowEvaluator evaluator, Object[] row) {
        try {
            return evaluator.evaluate(row) == Verdict.TRUE ? "true" : "not";
        } catch (RowFailureException failed) {
            return "error";
        }
    }

    private static String words(List<Object[]> rows, List<String> ours, List<String> theirs) {
        var words = new StringBuilder();
        for (int i = 0; i < rows.size(); i++) {
            if (ours.get(i).equals(theirs.get(i))) continue;
            words.append("\n").append(List.of(ours.get(i), theirs.get(i))).append(Arrays.toString(rows.get(i)));
        }
        return words.toString();
    }
}
