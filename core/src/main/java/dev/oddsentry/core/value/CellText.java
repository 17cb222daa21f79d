package dev.oddsentry.core.value;

import dev.oddsentry.core.time.Span;
import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.temporal.ChronoField;
import java.util.HexFormat;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** One plain text for each cell, the same in mail, CSV, API and command line until a layout says otherwise. */
public final class CellText {
    private static final DateTimeFormatter TIME = new DateTimeFormatterBuilder()
            .appendPattern("HH:mm")
            .optionalStart()
            .appendPattern(":ss")
            .appendFraction(ChronoField.NANO_OF_SECOND, 0, 9, true)
            .optionalEnd()
            .toFormatter();

    /** A database may have it as the last time of a day; it is read as the last instant before. */
    private static final String END_OF_DAY = "24:00";

    private static final int MOST_IN_LIST = 2_000;

    private CellText() {}

    /** The cell in words; the empty text for null. Instants are told in {@code zone}, with its offset. */
    public static String of(@Nullable Object cell, ZoneId zone) {
        return switch (cell) {
            case null -> "";
            case BigDecimal decimal -> plain(decimal);
            case Instant instant -> ofInstant(instant, zone);
            case LocalDate date when date.equals(LocalDate.MAX) -> "infinity";
            case LocalDate date when date.equals(LocalDate.MIN) -> "-infinity";
            case LocalDateTime local when local.equals(LocalDateTime.MAX) -> "infinity";
            case LocalDateTime local when local.equals(LocalDateTime.MIN) -> "-infinity";
            case LocalDateTime local -> local.toLocalDate() + " " + ofTime(local.toLocalTime());
            case LocalTime time when time.equals(LocalTime.MAX) -> END_OF_DAY;
            case LocalTime time -> ofTime(time);
            case byte[] bytes -> "\\x" + HexFormat.of().formatHex(bytes);
            default -> cell.toString();
        };
    }

    /** The same, cut to what a person looks at in a list; says how long the whole is. */
    public static String brief(@Nullable Object cell, ZoneId zone) {
        String text = of(cell, zone);
        if (text.length() <= MOST_IN_LIST) return text;
        return text.substring(0, text.offsetByCodePoints(0, MOST_IN_LIST / 2)) + "… (" + text.length() + " characters)";
    }

    /**
     * The cell that a person means who writes what {@link #of} prints, or the ISO form of it.
     *
     * @throws IllegalArgumentException with words, if the text is no cell of that type
     */
    public static Object parse(String text, Type type, ZoneId zone) {
        try {
            return switch (type) {
                case NUMBER -> new BigDecimal(text.strip());
                case TRUTH -> Boolean.valueOf(text.strip());
                case DATE -> LocalDate.parse(text.strip());
                case TIME -> text.strip().equals(END_OF_DAY) ? LocalTime.MAX : LocalTime.parse(text.strip());
                case TIMESTAMP -> LocalDateTime.parse(text.strip().replace(' ', 'T'));
                case INSTANT -> instant(text.strip().replace(' ', 'T'), zone);
                case BYTES -> HexFormat.of().parseHex(text.strip().replaceFirst("^\\\\x", ""));
                case DURATION -> Span.ofIso(text.strip());
                case TEXT, NULL -> text;
            };
        } catch (DateTimeException | IllegalArgumentException notOne) {
            throw new IllegalArgumentException("\"" + text + "\" is not " + type.word(), notOne);
        }
    }

    /** Without an offset it is local to the zone. */
    private static Instant instant(String text, ZoneId zone) {
        var parsed = DateTimeFormatter.ISO_DATE_TIME.parseBest(text, OffsetDateTime::from, LocalDateTime::from);
        return parsed instanceof OffsetDateTime exact
                ? exact.toInstant()
                : LocalDateTime.from(parsed).atZone(zone).toInstant();
    }

    private static String ofInstant(Instant instant, ZoneId zone) {
        if (instant.equals(Instant.MAX)) return "infinity";
        if (instant.equals(Instant.MIN)) return "-infinity";
        var there = instant.atZone(zone);
        return there.toLocalDate() + " " + ofTime(there.toLocalTime())
                + there.getOffset().getId();
    }

    private static String ofTime(LocalTime time) {
        boolean wholeMinute = time.getSecond() == 0 && time.getNano() == 0;
        // Most are, and a great extract has many of them.
        return wholeMinute ? twoDigits(time.getHour()) + ":" + twoDigits(time.getMinute()) : TIME.format(time);
    }

    private static String twoDigits(int number) {
        return number < 10 ? "0" + number : Integer.toString(number);
    }

    /** Plain digits, unless an extreme exponent would print thousands of zeros. */
    private static String plain(BigDecimal decimal) {
        return Math.abs((long) decimal.precision() - decimal.scale()) > 60
                ? decimal.toString()
                : decimal.toPlainString();
    }

    /** Several cells for people, such as an identity; {@code the whole result} for none. */
    public static String joined(List<? extends @Nullable Object> cells, ZoneId zone) {
        if (cells.isEmpty()) return "the whole result";
        return cells.stream()
                .map(cell -> cell == null ? "missing" : of(cell, zone))
                .collect(Collectors.joining(", "));
    }
}
