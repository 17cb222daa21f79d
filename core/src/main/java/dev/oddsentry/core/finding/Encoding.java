package dev.oddsentry.core.finding;

import dev.oddsentry.core.time.Span;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.math.BigDecimal;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.Arrays;
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
        BYTES,
        SPAN
    }

    private static final VarHandle LONGS = MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.BIG_ENDIAN);
    private static final VarHandle INTS = MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.BIG_ENDIAN);
    private static final int SAFE_DIGITS = 18;

    private byte[] bytes = new byte[64];
    private int length;

    private Encoding() {}

    static Encoding of(List<? extends @Nullable Object> cells) {
        var encoding = new Encoding();
        for (int i = 0; i < cells.size(); i++) encoding.put(cells.get(i));
        return encoding;
    }

    /** The bytes; only the first {@link #length()} of them count. */
    byte[] bytes() {
        return bytes;
    }

    int length() {
        return length;
    }

    private void put(@Nullable Object cell) {
        switch (cell) {
            case null -> tag(Family.NULL);
            case Long whole -> number(whole, 0);
            case BigDecimal decimal
            when decimal.precision() <= SAFE_DIGITS ->
                number(decimal.unscaledValue().longValue(), decimal.scale());
            case BigDecimal decimal -> {
                var shortest = decimal.stripTrailingZeros();
                blob(Family.NUMBER, shortest.unscaledValue().toByteArray());
                putInt(shortest.scale());
            }
            case Double special when special.isNaN() -> tag(Family.NOT_A_NUMBER);
            case Double special -> {
                tag(Family.INFINITE);
                putByte(special > 0 ? 1 : 0);
            }
            case String text -> blob(Family.TEXT, text.getBytes(StandardCharsets.UTF_8));
            case Boolean truth -> {
                tag(Family.TRUTH);
                putByte(truth ? 1 : 0);
            }
            case LocalDate date -> {
                tag(Family.DATE);
                putLong(date.toEpochDay());
            }
            case LocalTime time -> {
                tag(Family.LOCAL_TIME);
                putLong(time.toNanoOfDay());
            }
            case LocalDateTime local -> {
                tag(Family.LOCAL_TIMESTAMP);
                putLong(local.toLocalDate().toEpochDay());
                putLong(local.toLocalTime().toNanoOfDay());
            }
            case Instant instant -> {
                tag(Family.INSTANT);
                putLong(instant.getEpochSecond());
                putInt(instant.getNano());
            }
            case byte[] raw -> blob(Family.BYTES, raw);
            case Span span -> {
                tag(Family.SPAN);
                putInt(span.months());
                putInt(span.days());
                putLong(span.clock().getSeconds());
                putInt(span.clock().getNano());
            }
            default -> throw new IllegalStateException("no cell: " + cell.getClass());
        }
    }

    /** Without trailing zeros, as the fewest bytes of the two's complement: what {@link BigDecimal} would give, without making one. */
    private void number(long unscaled, int scale) {
        long shortest = unscaled;
        int shortestScale = unscaled == 0 ? 0 : scale;
        while (shortest != 0 && shortest % 10 == 0) {
            shortest /= 10;
            shortestScale--;
        }
        int width = (Long.SIZE - Long.numberOfLeadingZeros(shortest < 0 ? ~shortest : shortest)) / Byte.SIZE + 1;
        tag(Family.NUMBER);
        putInt(width);
        for (int i = width - 1; i >= 0; i--) putByte((int) (shortest >> (Byte.SIZE * i)));
        putInt(shortestScale);
    }

    private void blob(Family family, byte[] raw) {
        tag(family);
        putInt(raw.length);
        makeRoom(raw.length);
        System.arraycopy(raw, 0, bytes, length, raw.length);
        length += raw.length;
    }

    private void tag(Family family) {
        putByte(family.ordinal());
    }

    private void putByte(int value) {
        makeRoom(Byte.BYTES);
        bytes[length++] = (byte) value;
    }

    private void putInt(int value) {
        makeRoom(Integer.BYTES);
        INTS.set(bytes, length, value);
        length += Integer.BYTES;
    }

    private void putLong(long value) {
        makeRoom(Long.BYTES);
        LONGS.set(bytes, length, value);
        length += Long.BYTES;
    }

    private void makeRoom(int more) {
        if (length + more <= bytes.length) return;
        bytes = Arrays.copyOf(bytes, Math.max(2 * bytes.length, Math.addExact(length, more)));
    }
}
