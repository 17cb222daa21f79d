package dev.oddsentry.service.queries;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.service.RunningService;
import java.math.BigDecimal;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** PostgreSQL's types as core's cells. */
class ResultColumnsTest {
    private final RunningService service = RunningService.get();

    static Stream<Arguments> values() {
        return Stream.of(
                Arguments.of("7::smallint", Type.NUMBER, 7L),
                Arguments.of("9223372036854775807", Type.NUMBER, Long.MAX_VALUE),
                Arguments.of("12.50", Type.NUMBER, new BigDecimal("12.50")),
                Arguments.of("'NaN'::numeric", Type.NUMBER, Double.NaN),
                Arguments.of("'Infinity'::numeric", Type.NUMBER, Double.POSITIVE_INFINITY),
                Arguments.of("0.1::float8", Type.NUMBER, new BigDecimal("0.1")),
                Arguments.of("0.1::float4", Type.NUMBER, new BigDecimal("0.1")),
                Arguments.of("'-Infinity'::float8", Type.NUMBER, Double.NEGATIVE_INFINITY),
                Arguments.of("'ab'::char(6)", Type.TEXT, "ab"),
                Arguments.of("'ab '::text", Type.TEXT, "ab "),
                Arguments.of("'Gråvik 😀'::varchar", Type.TEXT, "Gråvik 😀"),
                Arguments.of("true", Type.TRUTH, true),
                Arguments.of("date '2026-02-28'", Type.DATE, LocalDate.of(2026, 2, 28)),
                Arguments.of("date 'infinity'", Type.DATE, LocalDate.MAX),
                Arguments.of("date '-infinity'", Type.DATE, LocalDate.MIN),
                Arguments.of("time '06:30:05.25'", Type.TIME, LocalTime.of(6, 30, 5, 250_000_000)),
                Arguments.of("timestamp '2026-03-29 02:30'", Type.TIMESTAMP, LocalDateTime.of(2026, 3, 29, 2, 30)),
                Arguments.of("timestamp 'infinity'", Type.TIMESTAMP, LocalDateTime.MAX),
                Arguments.of("timestamptz '2026-10-25 02:30+01'", Type.INSTANT, Instant.parse("2026-10-25T01:30:00Z")),
                Arguments.of("timestamptz 'infinity'", Type.INSTANT, Instant.MAX),
                Arguments.of("timestamptz '-infinity'", Type.INSTANT, Instant.MIN),
                Arguments.of("time '24:00'", Type.TIME, LocalTime.MAX),
                Arguments.of("date '0044-03-15 BC'", Type.DATE, LocalDate.of(-43, 3, 15)),
                Arguments.of("date '1066-10-14'", Type.DATE, LocalDate.of(1066, 10, 14)),
                Arguments.of(
                        "timestamp '1500-02-28 10:00:00.000001'",
                        Type.TIMESTAMP,
                        LocalDateTime.of(1500, 2, 28, 10, 0, 0, 1000)),
                Arguments.of(
                        "interval '1 year 2 months -3 days -1.5 hours'",
                        Type.DURATION,
                        new Span(14, -3, Duration.ofMinutes(-90))),
                Arguments.of(
                        "interval '-5.0005 s'",
                        Type.DURATION,
                        new Span(0, 0, Duration.ofSeconds(-5).minusNanos(500_000))),
                Arguments.of("B'10110'", Type.TEXT, "10110"),
                Arguments.of("B'101'::varbit", Type.TEXT, "101"),
                Arguments.of("array[1, 2, null]", Type.TEXT, "{1,2,NULL}"),
                Arguments.of("int4range(1, 5)", Type.TEXT, "[1,5)"),
                Arguments.of("'192.168.0.1/24'::inet", Type.TEXT, "192.168.0.1/24"),
                Arguments.of("'<a>b</a>'::xml", Type.TEXT, "<a>b</a>"),
                Arguments.of("'{\"a\": 1}'::jsonb", Type.TEXT, "{\"a\": 1}"),
                Arguments.of("'\\x0102'::bytea", Type.BYTES, new byte[] {1, 2}));
    }

    @ParameterizedTest
    @MethodSource("values")
    void readsEachTypeAsACell(String sql, Type type, Object cell) throws SQLException {
        try (var connection = service.connect("ferry");
                var statement =
                        connection.prepareStatement("select " + sql + " as x, null::" + typeOf(sql) + " as missing");
                var rows = statement.executeQuery()) {
            var columns = ResultColumns.of(rows.getMetaData());
            assertThat(columns.columns().at(0)).isEqualTo(new Column("x", type));
            rows.next();
            Object[] read = columns.read(rows);
            assertThat(read[0]).isEqualTo(cell);
            assertThat(read[1]).isNull();
        }
    }

    private String typeOf(String sql) throws SQLException {
        try (var connection = service.connect("ferry");
                var statement = connection.createStatement();
                var rows = statement.executeQuery("select format_type(pg_typeof(" + sql + "), null)")) {
            rows.next();
            return rows.getString(1);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"12.50::money", "timetz '10:00+02'"})
    void whatDependsOnItsPlaceIsRefusedWithTheColumnAndWhatToWrite(String sql) throws SQLException {
        try (var connection = service.connect("ferry");
                var statement = connection.prepareStatement("select " + sql + " as fare")) {
            assertThatThrownBy(() -> ResultColumns.of(statement.getMetaData()))
                    .isInstanceOf(QueryFailureException.class)
                    .hasMessageContaining("The column fare is")
                    .hasMessageContaining("fare::");
        }
    }

    @Test
    void enumerationsAndUuidsAreKnownAsSuch() throws SQLException {
        service.execute(
                "ferry",
                "do $$ begin create type berth_state as enum ('free', 'taken', 'closed'); exception when duplicate_object then null; end $$");
        try (var connection = service.connect("ferry");
                var statement = connection.prepareStatement(
                        "select 'free'::berth_state as state, gen_random_uuid() as id, 'x'::text as word")) {
            assertThat(ResultColumns.of(statement.getMetaData()).columns().inOrder())
                    .extracting(Column::nature)
                    .containsExactly(Column.Nature.ENUMERATION, Column.Nature.UUID, Column.Nature.PLAIN);
        }
    }

    @Test
    void twoColumnsOfOneNameAreRefusedWithAdvice() throws SQLException {
        try (var connection = service.connect("ferry");
                var statement = connection.prepareStatement("select 1 as a, 2 as a")) {
            assertThatThrownBy(() -> ResultColumns.of(statement.getMetaData()))
                    .isInstanceOf(QueryFailureException.class)
                    .hasMessageContaining("give one another name");
        }
    }
}
