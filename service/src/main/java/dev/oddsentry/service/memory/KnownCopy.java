package dev.oddsentry.service.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.CurrentFinding;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.KnownTable;
import dev.oddsentry.core.memory.MinimumDuration;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.postgresql.PGConnection;
import org.postgresql.copy.CopyOut;

/**
 * Reads the current state of every finding of a rule in the binary form of COPY: a million of them as result sets take several times as
 * long as the rows that they are compared with. The form is PostgreSQL's documented one: for each row the number of its fields, and for
 * each field its length and its bytes in network order.
 */
final class KnownCopy {
    /** Signature, flags and the length of an extension, which is none. */
    private static final int HEADER = 11 + 4 + 4;

    private static final short END = -1;
    private static final int NULL = -1;
    /** Of 2000-01-01, from which PostgreSQL counts its microseconds. */
    private static final long EPOCH_SECONDS = 946_684_800;

    private static final long MICROS = 1_000_000;
    private static final Map<String, FindingState> STATES =
            Stream.of(FindingState.values()).collect(Collectors.toMap(FindingState::name, state -> state));
    private static final Map<String, Severity> SEVERITIES =
            Stream.of(Severity.values()).collect(Collectors.toMap(Severity::name, severity -> severity));

    private final KnownTable table;
    private byte[] stateName = {};
    private FindingState state = FindingState.OPEN;
    private byte[] severityName = {};
    private Severity severity = Severity.NOTICE;

    private KnownCopy(KnownTable table) {
        this.table = table;
    }

    static void read(Connection connection, Scope scope, KnownTable into) throws SQLException {
        // COPY takes no parameters; an id has digits, letters and hyphens alone, a copy's key whatever people write.
        String copyKey = scope.copy() == null
                ? " is null"
                : " = '" + connection.unwrap(PGConnection.class).escapeLiteral(scope.copy()) + "'";
        String sql =
                "copy (select id, key, fingerprint, state, severity, no_data, lasting_ordinal, lasting_slot, absent_ordinal,"
                        + " absent_slot, better_ordinal, better_slot from finding where rule_id = '" + scope.ruleId()
                        + "' and copy_key" + copyKey + ") to stdout (format binary)";
        var copy = connection.unwrap(PGConnection.class).getCopyAPI().copyOut(sql);
        try {
            new KnownCopy(into).read(copy);
        } finally {
            if (copy.isActive()) copy.cancelCopy();
        }
    }

    /** The server sends a row in each piece; the header comes with the first. It is read to its very end, or the connection is spoilt. */
    private void read(CopyOut copy) throws SQLException {
        boolean first = true;
        for (byte[] piece = copy.readFromCopy(); piece != null; piece = copy.readFromCopy()) {
            var bytes = ByteBuffer.wrap(piece);
            if (first) bytes.position(HEADER);
            first = false;
            while (bytes.hasRemaining() && bytes.getShort() != END) row(bytes);
        }
    }

    private void row(ByteBuffer bytes) {
        bytes.getInt();
        long id = bytes.getLong();
        var key = digest(bytes);
        var fingerprint = digest(bytes);
        readState(bytes);
        readSeverity(bytes);
        bytes.getInt();
        boolean noData = bytes.get() != 0;
        var held = start(bytes);
        var missed = start(bytes);
        var better = start(bytes);
        table.add(id, key, new CurrentFinding(state, severity, fingerprint, held, missed, better, noData));
    }

    private static Digest digest(ByteBuffer bytes) {
        bytes.getInt();
        return Digest.of(new UUID(bytes.getLong(), bytes.getLong()));
    }

    /** Most rows have the state of the row before, so the text is seldom made. */
    private void readState(ByteBuffer bytes) {
        if (isSame(bytes, stateName)) return;
        stateName = next(bytes);
        state = Objects.requireNonNull(STATES.get(new String(stateName, StandardCharsets.US_ASCII)));
    }

    private void readSeverity(ByteBuffer bytes) {
        if (isSame(bytes, severityName)) return;
        severityName = next(bytes);
        severity = Objects.requireNonNull(SEVERITIES.get(new String(severityName, StandardCharsets.US_ASCII)));
    }

    /** Passes the field by if it is the same text; else stands before its bytes still. */
    private static boolean isSame(ByteBuffer bytes, byte[] text) {
        int at = bytes.position();
        int length = bytes.getInt(at);
        if (length != text.length) return false;
        for (int i = 0; i < length; i++) if (bytes.get(at + 4 + i) != text[i]) return false;
        bytes.position(at + 4 + length);
        return true;
    }

    private static byte[] next(ByteBuffer bytes) {
        byte[] text = new byte[bytes.getInt()];
        bytes.get(text);
        return text;
    }

    private static MinimumDuration.@Nullable Start start(ByteBuffer bytes) {
        if (bytes.getInt() == NULL) {
            if (bytes.getInt() != NULL) throw new IllegalStateException("a slot without its ordinal");
            return null;
        }
        long ordinal = bytes.getLong();
        if (bytes.getInt() == NULL) throw new IllegalStateException("an ordinal without its slot");
        long micros = bytes.getLong();
        var slot = Instant.ofEpochSecond(
                EPOCH_SECONDS + Math.floorDiv(micros, MICROS), Math.floorMod(micros, MICROS) * 1_000);
        return new MinimumDuration.Start(ordinal, slot);
    }
}
