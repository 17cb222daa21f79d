package dev.oddsentry.service.memory;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.function.Consumer;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.postgresql.PGConnection;
import org.postgresql.copy.CopyIn;

/** Writes rows by COPY in its text form, in the connection of the transaction that is open: a first check may bring a million of them. */
final class TableCopy {
    private static final int BUFFER = 1 << 16;
    /** The most bytes that one character takes. */
    private static final int MOST_OF_ONE = 4;

    private final CopyIn copy;
    private final byte[] buffer = new byte[BUFFER];
    private int filled;
    private boolean first = true;

    private TableCopy(CopyIn copy) {
        this.copy = copy;
    }

    /**
     * @param into such as {@code finding (id, key)}
     * @param rows given where to put them
     */
    static void write(DSLContext db, String into, Consumer<TableCopy> rows) {
        db.connection(connection -> write(connection, into, rows));
    }

    private static void write(Connection connection, String into, Consumer<TableCopy> rows) throws SQLException {
        var copy = connection.unwrap(PGConnection.class).getCopyAPI().copyIn("copy " + into + " from stdin");
        try {
            var writer = new TableCopy(copy);
            rows.accept(writer);
            writer.flush();
            copy.endCopy();
        } finally {
            if (copy.isActive()) copy.cancelCopy();
        }
    }

    /** A backslash stands before what would end the cell, the line, or itself. */
    TableCopy cell(@Nullable Object value) {
        if (first) first = false;
        else put('\t');
        if (value == null) {
            put('\\');
            put('N');
            return this;
        }
        String text = value.toString();
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            switch (c) {
                case '\\' -> escaped('\\');
                case '\t' -> escaped('t');
                case '\n' -> escaped('n');
                case '\r' -> escaped('r');
                default -> {
                    if (c < 0x80) put(c);
                    else i = beyondAscii(text, i);
                }
            }
        }
        return this;
    }

    void end() {
        put('\n');
        first = true;
    }

    private void escaped(char c) {
        put('\\');
        put(c);
    }

    private void put(char ascii) {
        if (filled == BUFFER) flush();
        buffer[filled++] = (byte) ascii;
    }

    /** @return the index of the last char that was taken */
    private int beyondAscii(String text, int from) {
        int last = from + Character.charCount(text.codePointAt(from)) - 1;
        byte[] bytes = text.substring(from, last + 1).getBytes(StandardCharsets.UTF_8);
        if (filled + MOST_OF_ONE > BUFFER) flush();
        System.arraycopy(bytes, 0, buffer, filled, bytes.length);
        filled += bytes.length;
        return last;
    }

    private void flush() {
        try {
            copy.writeToCopy(buffer, 0, filled);
            filled = 0;
        } catch (SQLException e) {
            throw new UncheckedIOException("memory could not be written", new IOException(e));
        }
    }
}
