package dev.oddsentry.service.queries;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.service.RunningService;
import java.math.BigDecimal;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

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
