package dev.oddsentry.core.value;

import dev.oddsentry.core.time.Span;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.HexFormat;
import org.jspecify.annotations.Nullable;

/** Cells to texts that keep the type, and back: a letter for the class, then the value. Memory keeps last rows this way. */
public final class CellCodec {
    private CellCodec() {}

    public static @Nullable String encode(@Nullable Object cell) {
        return switch (cell) {
            case null -> null;
            case Long whole -> "i" + whole;
            case BigDecimal decimal -> "n" + decimal;
            case Double special -> "f" + special;
            case String text -> "t" + text;
            case Boolean truth -> "b" + truth;
            case LocalDate date -> "d" + date;
            case LocalTime time -> "c" + time;
            case LocalDateTime local -> "l" + local;
            case Instant instant -> "z" + instant;
            case Span span -> "s" + span.iso();
            case byte[] raw -> "x" + HexFormat.of().formatHex(raw);
            default -> throw new IllegalStateException("no cell: " + cell.getClass());
        };
    }

    public static @Nullable Object decode(@Nullable String encoded) {
        if (encoded == null) return null;
        String value = encoded.substring(1);
        return switch (encoded.charAt(0)) {
            case 'i' -> Long.valueOf(value);
            case 'n' -> new BigDecimal(value);
            case 'f' -> Double.valueOf(value);
            case 't' -> value;
            case 'b' -> Boolean.valueOf(value);
            case 'd' -> LocalDate.parse(value);
            case 'c' -> LocalTime.parse(value);
            case 'l' -> LocalDateTime.parse(value);
            case 'z' -> Instant.parse(value);
            case 's' -> Span.ofIso(value);
            case 'x' -> HexFormat.of().parseHex(value);
            default -> throw new IllegalStateException("no encoded cell: " + encoded);
        };
    }
}
