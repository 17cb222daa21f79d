package dev.oddsentry.service.queries;

import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Numbers;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.service.failures.FailureKind;
import java.math.BigDecimal;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Types;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.postgresql.util.PGInterval;

/** A JDBC result's columns as core knows them, and its rows as core's cells. */
final class ResultColumns {
    /** What the driver says of texts; an enumeration has the name of its type. */
    private static final Set<String> TEXTS =
            Set.of("varchar", "text", "name", "bpchar", "citext", "character varying", "unknown");

    private final Columns columns;
    private final CellReader[] readers;

    private interface CellReader {
        @Nullable
        Object read(ResultSet rows, int index) throws SQLException;
    }

    private ResultColumns(Columns columns, CellReader[] readers) {
        this.columns = columns;
        this.readers = readers;
    }

    /** @throws QueryFailureException if two columns have one name */
    static ResultColumns of(ResultSetMetaData meta) throws SQLException {
        var columns = new ArrayList<Column>();
        var readers = new CellReader[meta.getColumnCount()];
        for (int i = 0; i < readers.length; i++) {
            Type type = typeOf(meta, i + 1);
            columns.add(new Column(meta.getColumnLabel(i + 1), type, natureOf(meta, i + 1)));
            readers[i] = readerOf(type, meta, i + 1);
        }
        try {
            return new ResultColumns(new Columns(columns), readers);
        } catch (IllegalArgumentException twice) {
            throw new QueryFailureException(
                    FailureKind.QUERY_INVALID,
                    "The query returns " + twice.getMessage() + "; give one another name with as.",
                    twice);
        }
    }

    Columns columns() {
        return columns;
    }

    @Nullable
    Object[] read(ResultSet rows) throws SQLException {
        var cells = new @Nullable Object[readers.length];
        for (int i = 0; i < readers.length; i++) cells[i] = readers[i].read(rows, i + 1);
        return cells;
    }

    /** @throws QueryFailureException if values of the column would depend on where they are read */
    private static Type typeOf(ResultSetMetaData meta, int index) throws SQLException {
        String name = meta.getColumnTypeName(index).toLowerCase(Locale.ROOT);
        boolean withZone = name.matches("timestamptz|timestamp with time zone");
        switch (name) {
            case "money" ->
                throw unreadable(meta, index, "money, whose text depends on the settings of the source", "numeric");
            case "timetz", "time with time zone" ->
                throw unreadable(meta, index, "a time of day with an offset, which no date says how to read", "time");
            case "bit", "varbit", "bit varying" -> {
                return Type.TEXT;
            }
            case "interval" -> {
                return Type.DURATION;
            }
            default -> {}
        }
        return switch (meta.getColumnType(index)) {
            case Types.TINYINT,
                    Types.SMALLINT,
                    Types.INTEGER,
                    Types.BIGINT,
                    Types.NUMERIC,
                    Types.DECIMAL,
                    Types.REAL,
                    Types.FLOAT,
                    Types.DOUBLE -> Type.NUMBER;
            case Types.BOOLEAN, Types.BIT -> Type.TRUTH;
            case Types.DATE -> Type.DATE;
            case Types.TIME -> Type.TIME;
            case Types.TIMESTAMP -> withZone ? Type.INSTANT : Type.TIMESTAMP;
            case Types.TIMESTAMP_WITH_TIMEZONE -> Type.INSTANT;
            case Types.BINARY, Types.VARBINARY, Types.LONGVARBINARY, Types.BLOB -> Type.BYTES;
            default -> Type.TEXT;
        };
    }

    private static Column.Nature natureOf(ResultSetMetaData meta, int index) throws SQLException {
        String name = meta.getColumnTypeName(index).toLowerCase(Locale.ROOT);
        if (name.equals("uuid")) return Column.Nature.UUID;
        boolean named = meta.getColumnType(index) == Types.VARCHAR && !TEXTS.contains(name);
        return named ? Column.Nature.ENUMERATION : Column.Nature.PLAIN;
    }

    private static QueryFailureException unreadable(ResultSetMetaData meta, int index, String why, String other)
            throws SQLException {
        String column = meta.getColumnLabel(index);
        return new QueryFailureException(
                FailureKind.QUERY_INVALID,
                "The column " + column + " is " + why + ". Write it as another type, such as " + column + "::" + other
                        + " as " + column + ".");
    }

    private static CellReader readerOf(Type type, ResultSetMetaData meta, int column) throws SQLException {
        boolean padded = meta.getColumnType(column) == Types.CHAR;
        return switch (type) {
            case NUMBER -> numberReader(meta.getColumnType(column));
            case TRUTH ->
                (rows, i) -> {
                    boolean value = rows.getBoolean(i);
                    return rows.wasNull() ? null : value;
                };
            case DATE -> (rows, i) -> rows.getObject(i, LocalDate.class);
            case TIME -> (rows, i) -> rows.getObject(i, LocalTime.class);
            case TIMESTAMP -> (rows, i) -> rows.getObject(i, LocalDateTime.class);
            case INSTANT -> (rows, i) -> instant(rows.getObject(i, OffsetDateTime.class));
            case BYTES -> ResultSet::getBytes;
            case TEXT -> padded ? (rows, i) -> unpadded(rows.getString(i)) : ResultSet::getString;
            case DURATION -> (rows, i) -> span(rows.getObject(i));
            case NULL -> throw new IllegalStateException("no column has the type " + type);
        };
    }

    private static CellReader numberReader(int jdbcType) {
        return switch (jdbcType) {
            case Types.TINYINT, Types.SMALLINT, Types.INTEGER, Types.BIGINT ->
                (rows, i) -> {
                    long value = rows.getLong(i);
                    return rows.wasNull() ? null : value;
                };
            case Types.REAL ->
                (rows, i) -> {
                    float value = rows.getFloat(i);
                    return rows.wasNull() ? null : Numbers.ofFloat(value);
                };
            case Types.FLOAT, Types.DOUBLE ->
                (rows, i) -> {
                    double value = rows.getDouble(i);
                    return rows.wasNull() ? null : Numbers.ofDouble(value);
                };
            default -> ResultColumns::numeric;
        };
    }

    /** A numeric of PostgreSQL can be NaN or infinite, which no {@link BigDecimal} is. */
    private static @Nullable Object numeric(ResultSet rows, int index) throws SQLException {
        Object value = rows.getObject(index);
        return value instanceof Double special ? Numbers.ofDouble(special) : value;
    }

    private static @Nullable Span span(@Nullable Object value) {
        if (value == null) return null;
        if (!(value instanceof PGInterval interval))
            throw new QueryFailureException(
                    FailureKind.QUERY_INVALID,
                    "The source gives an interval as " + value.getClass().getSimpleName() + ".");
        return new Span(
                Math.addExact(Math.multiplyExact(interval.getYears(), 12), interval.getMonths()),
                interval.getDays(),
                Duration.ofHours(interval.getHours())
                        .plusMinutes(interval.getMinutes())
                        .plusSeconds(interval.getWholeSeconds())
                        .plusNanos(interval.getMicroSeconds() * 1000L));
    }

    private static @Nullable Instant instant(@Nullable OffsetDateTime value) {
        if (value == null) return null;
        if (value.equals(OffsetDateTime.MAX)) return Instant.MAX;
        return value.equals(OffsetDateTime.MIN) ? Instant.MIN : value.toInstant();
    }

    /** {@code char(n)} is read without padding. */
    private static @Nullable String unpadded(@Nullable String text) {
        if (text == null) return null;
        int end = text.length();
        while (end > 0 && text.charAt(end - 1) == ' ') end--;
        return text.substring(0, end);
    }
}
