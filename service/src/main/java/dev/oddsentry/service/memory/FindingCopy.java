package dev.oddsentry.service.memory;

import dev.oddsentry.core.memory.Patience;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Instant;
import java.util.function.Consumer;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.postgresql.PGConnection;
import org.postgresql.copy.CopyIn;

/** Writes new findings by COPY, in the connection of the transaction that is open: a first check may bring a million of them. */
final class FindingCopy {
    private static final String COPY =
            "copy finding (rule_id, key, identity, state, severity, fingerprint, opened_at, changed_at, row,"
                    + " held_ordinal, held_slot, split_value, copy_key, no_data) from stdin";
    private static final int FLUSH_AT = 1 << 16;

    private final StringBuilder lines = new StringBuilder();
    private final CopyIn copy;

    private FindingCopy(CopyIn copy) {
        this.copy = copy;
    }

    /** One finding, its JSON already written. */
    record Line(
            String ruleId,
            String key,
            String identity,
            String state,
            String severity,
            String fingerprint,
            Instant slot,
            String row,
            Patience.@Nullable Start held,
            @Nullable String split,
            @Nullable String copy) {}

    /** @param lines given where to put them */
    static void write(DSLContext db, Consumer<Consumer<Line>> lines) {
        db.connection(connection -> write(connection, lines));
    }

    private static void write(Connection connection, Consumer<Consumer<Line>> lines) throws SQLException {
        var copy = connection.unwrap(PGConnection.class).getCopyAPI().copyIn(COPY);
        try {
            var writer = new FindingCopy(copy);
            lines.accept(writer::add);
            writer.flush();
            copy.endCopy();
        } finally {
            if (copy.isActive()) copy.cancelCopy();
        }
    }

    private void add(Line line) {
        cell(line.ruleId);
        cell(line.key);
        cell(line.identity);
        cell(line.state);
        cell(line.severity);
        cell(line.fingerprint);
        cell(line.slot.toString());
        cell(line.slot.toString());
        cell(line.row);
        cell(line.held == null ? null : String.valueOf(line.held.ordinal()));
        cell(line.held == null ? null : line.held.slot().toString());
        cell(line.split);
        cell(line.copy);
        cell("false");
        lines.setCharAt(lines.length() - 1, '\n');
        if (lines.length() >= FLUSH_AT) flush();
    }

    /** The text form of COPY: a backslash before what would end the cell, the line, or itself. */
    private void cell(@Nullable String text) {
        if (text == null) lines.append("\\N");
        else {
            for (int i = 0; i < text.length(); i++) {
                char c = text.charAt(i);
                switch (c) {
                    case '\\' -> lines.append("\\\\");
                    case '\t' -> lines.append("\\t");
                    case '\n' -> lines.append("\\n");
                    case '\r' -> lines.append("\\r");
                    default -> lines.append(c);
                }
            }
        }
        lines.append('\t');
    }

    private void flush() {
        byte[] bytes = lines.toString().getBytes(StandardCharsets.UTF_8);
        lines.setLength(0);
        try {
            copy.writeToCopy(bytes, 0, bytes.length);
        } catch (SQLException e) {
            throw new UncheckedIOException("new findings could not be written", new IOException(e));
        }
    }
}
