package dev.oddsentry.service.evaluation;

import java.io.DataInput;
import java.io.DataOutput;
import java.io.IOException;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Cells as few bytes, for a file that this process alone reads again. Quick, since every exception of a result passes through it. */
final class CellBytes {
    private enum Tag {
        NULL,
        LONG,
        SHORT_DECIMAL,
        DECIMAL,
        DOUBLE,
        TEXT,
        TRUE,
        FALSE,
        DATE,
        TIME,
        TIMESTAMP,
        INSTANT,
        BYTES
    }

    private static final Tag[] TAGS = Tag.values();
    private static final int SHORT_DIGITS = 18;

    private CellBytes() {}

    static void write(DataOutput out, List<? extends @Nullable Object> cells) throws IOException {
        out.writeInt(cells.size());
        for (int i = 0; i < cells.size(); i++) write(out, cells.get(i));
    }

    private static void write(DataOutput out, @Nullable Object cell) throws IOException {
        switch (cell) {
            case null -> out.writeByte(Tag.NULL.ordinal());
            case Long whole -> {
                out.writeByte(Tag.LONG.ordinal());
                out.writeLong(whole);
            }
            case BigDecimal decimal
            when decimal.precision() <= SHORT_DIGITS -> {
                out.writeByte(Tag.SHORT_DECIMAL.ordinal());
                out.writeInt(decimal.scale());
                out.writeLong(decimal.unscaledValue().longValue());
            }
            case BigDecimal decimal -> {
                out.writeByte(Tag.DECIMAL.ordinal());
                out.writeInt(decimal.scale());
                blob(out, decimal.unscaledValue().toByteArray());
            }
            case Double special -> {
                out.writeByte(Tag.DOUBLE.ordinal());
                out.writeDouble(special);
            }
            case String text -> {
                out.writeByte(Tag.TEXT.ordinal());
                blob(out, text.getBytes(StandardCharsets.UTF_8));
            }
            case Boolean truth -> out.writeByte((truth ? Tag.TRUE : Tag.FALSE).ordinal());
            case LocalDate date -> {
                out.writeByte(Tag.DATE.ordinal());
                out.writeLong(date.toEpochDay());
            }
            case LocalTime time -> {
                out.writeByte(Tag.TIME.ordinal());
                out.writeLong(time.toNanoOfDay());
            }
            case LocalDateTime local -> {
                out.writeByte(Tag.TIMESTAMP.ordinal());
                out.writeLong(local.toLocalDate().toEpochDay());
                out.writeLong(local.toLocalTime().toNanoOfDay());
            }
            case Instant instant -> {
                out.writeByte(Tag.INSTANT.ordinal());
                out.writeLong(instant.getEpochSecond());
                out.writeInt(instant.getNano());
            }
            case byte[] raw -> {
                out.writeByte(Tag.BYTES.ordinal());
                blob(out, raw);
            }
            default -> throw new IllegalStateException("no cell: " + cell.getClass());
        }
    }

    private static void blob(DataOutput out, byte[] raw) throws IOException {
        out.writeInt(raw.length);
        out.write(raw);
    }

    static List<@Nullable Object> read(DataInput in) throws IOException {
        int size = in.readInt();
        var cells = new ArrayList<@Nullable Object>(size);
        for (int i = 0; i < size; i++) cells.add(cell(in));
        return cells;
    }

    private static @Nullable Object cell(DataInput in) throws IOException {
        return switch (TAGS[in.readByte()]) {
            case NULL -> null;
            case LONG -> in.readLong();
            case SHORT_DECIMAL -> {
                int scale = in.readInt();
                yield BigDecimal.valueOf(in.readLong(), scale);
            }
            case DECIMAL -> {
                int scale = in.readInt();
                yield new BigDecimal(new BigInteger(blob(in)), scale);
            }
            case DOUBLE -> in.readDouble();
            case TEXT -> new String(blob(in), StandardCharsets.UTF_8);
            case TRUE -> true;
            case FALSE -> false;
            case DATE -> LocalDate.ofEpochDay(in.readLong());
            case TIME -> LocalTime.ofNanoOfDay(in.readLong());
            case TIMESTAMP ->
                LocalDateTime.of(LocalDate.ofEpochDay(in.readLong()), LocalTime.ofNanoOfDay(in.readLong()));
            case INSTANT -> Instant.ofEpochSecond(in.readLong(), in.readInt());
            case BYTES -> blob(in);
        };
    }

    private static byte[] blob(DataInput in) throws IOException {
        var raw = new byte[in.readInt()];
        in.readFully(raw);
        return raw;
    }
}
