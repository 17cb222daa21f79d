package dev.oddsentry.service.queries;

import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Numbers;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Types;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import org.jspecify.annotations.Nullable;

/** A JDBC result's columns as core knows them, and its rows as core's cells. */
final class ResultColumns {
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
            columns.add(new Column(meta.getColumnLabel(i + 1), type));
            readers[i] = readerOf(type, meta, i + 1);
        }
        try {
            return new ResultColumns(new Columns(columns), readers);
        } catch (IllegalArgumentException twice) {
            throw new QueryFailureException(
                    "The query returns " + twice.getMessage() + "; give one another name with as.", twice);
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

    private static Type typeOf(ResultSetMetaData meta, int index) throws SQLException {
        boolean withZone = meta.getColumnTypeName(index).matches("(?i)timestamptz|timestamp with time zone");
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
            case DURATION, NULL -> throw new IllegalStateException("no column has the type " + type);
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
