package dev.oddsentry.core.finding;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The canonical bytes of a list of cells: equal values give equal bytes however a source happened to deliver them (1, 1.0 and
 * 1.00; −0 and 0), different ones never do. Each cell starts with the tag of its family; what varies in length carries its length.
 */
final class Encoding {
    /** Stored with every memory; a change of anything in this class needs a new number and a re-base. */
    static final int VERSION = 1;

    private enum Family {
        NULL,
        NUMBER,
        NOT_A_NUMBER,
        INFINITE,
        TEXT,
        TRUTH,
        DATE,
        LOCAL_TIME,
        LOCAL_TIMESTAMP,
        INSTANT,
        BYTES
    }

    private Encoding() {}

    static byte[] encode(List<? extends @Nullable Object> cells) {
        var bytes = new ByteArrayOutputStream(16 * cells.size());
        try (var out = new DataOutputStream(bytes)) {
            for (var cell : cells) write(cell, out);
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return bytes.toByteArray();
    }

    private static void write(@Nullable Object cell, DataOutputStream out) throws IOException {
        switch (cell) {
            case null -> tag(Family.NULL, out);
            case Long whole -> number(BigDecimal.valueOf(whole), out);
            case BigDecimal decimal -> number(decimal, out);
            case Double special when special.isNaN() -> tag(Family.NOT_A_NUMBER, out);
            case Double special -> {
                tag(Family.INFINITE, out);
                out.writeBoolean(special > 0);
            }
            case String text -> bytes(Family.TEXT, text.getBytes(StandardCharsets.UTF_8), out);
            case Boolean truth -> {
                tag(Family.TRUTH, out);
                out.writeBoolean(truth);
            }
            case LocalDate date -> {
                tag(Family.DATE, out);
                out.writeLong(date.toEpochDay());
            }
            case LocalTime time -> {
                tag(Family.LOCAL_TIME, out);
                out.writeLong(time.toNanoOfDay());
            }
            case LocalDateTime local -> {
                tag(Family.LOCAL_TIMESTAMP, out);
                out.writeLong(local.toLocalDate().toEpochDay());
                out.writeLong(local.toLocalTime().toNanoOfDay());
            }
            case Instant instant -> {
                tag(Family.INSTANT, out);
                out.writeLong(instant.getEpochSecond());
                out.writeInt(instant.getNano());
            }
            case byte[] raw -> bytes(Family.BYTES, raw, out);
            default -> throw new IllegalStateException("no cell: " + cell.getClass());
        }
    }

    private static void number(BigDecimal decimal, DataOutputStream out) throws IOException {
        var shortest = decimal.stripTrailingZeros();
        bytes(Family.NUMBER, shortest.unscaledValue().toByteArray(), out);
        out.writeInt(shortest.signum() == 0 ? 0 : shortest.scale());
    }

    private static void bytes(Family family, byte[] raw, DataOutputStream out) throws IOException {
        tag(family, out);
        out.writeInt(raw.length);
        out.write(raw);
    }

    private static void tag(Family family, DataOutputStream out) throws IOException {
        out.writeByte(family.ordinal());
    }
}
