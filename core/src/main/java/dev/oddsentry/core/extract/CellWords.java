package dev.oddsentry.core.extract;

import dev.oddsentry.core.value.CellText;
import java.text.DecimalFormatSymbols;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.temporal.TemporalAccessor;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Cells as people read them, the same in every format. */
public final class CellWords {
    private CellWords() {}

    /** The word that stands for a code; empty-handed, null. */
    public static @Nullable String word(Extract.Column column, Object value, ZoneId zone) {
        return column.hasWords() ? column.words().get(CellText.of(value, zone)) : null;
    }

    /** Without the unit; the empty text for null. */
    public static String of(@Nullable Object value, Extract.Column column, Extract extract) {
        if (value == null) return "";
        return of(value, column.words(), column.format(), extract.zone(), extract.language());
    }

    /**
     * @param words what codes mean, by their text
     * @param format null for the usual way of the value's type
     */
    public static String of(
            Object value, Map<String, String> words, @Nullable CellFormat format, ZoneId zone, Language language) {
        String word = words.isEmpty() ? null : words.get(CellText.of(value, zone));
        if (word != null) return word;
        if (format != null) {
            if (format.isOfNumbers() && value instanceof Number) return format.number(value, language);
            var time = format.isOfNumbers() ? null : time(value, zone);
            if (time != null) return format.time(time, language);
        }
        String text = CellText.of(value, zone);
        return value instanceof Number ? withDecimalSign(text, language) : text;
    }

    /** What a format of times can write; null for the infinities and for a value that is not a time. */
    private static @Nullable TemporalAccessor time(Object value, ZoneId zone) {
        return switch (value) {
            case Instant instant when isFinite(instant) -> instant.atZone(zone);
            case LocalDateTime local when !local.equals(LocalDateTime.MAX) && !local.equals(LocalDateTime.MIN) -> local;
            case LocalDate date when !date.equals(LocalDate.MAX) && !date.equals(LocalDate.MIN) -> date.atStartOfDay();
            case LocalTime time when !time.equals(LocalTime.MAX) -> time.atDate(LocalDate.EPOCH);
            default -> null;
        };
    }

    public static boolean isFinite(Instant instant) {
        return !instant.equals(Instant.MAX) && !instant.equals(Instant.MIN);
    }

    /** A number as it is, with the language's decimal sign. */
    public static String number(Object number, Language language) {
        return withDecimalSign(CellText.of(number, ZoneOffset.UTC), language);
    }

    private static String withDecimalSign(String digits, Language language) {
        char sign = DecimalFormatSymbols.getInstance(language.locale()).getDecimalSeparator();
        return sign == '.' || digits.indexOf('E') >= 0 ? digits : digits.replace('.', sign);
    }

    /** What stands below a column, with what it is; the empty text where there is nothing to calculate with. */
    public static String ofTotal(@Nullable Object value, Extract.Column column, Extract extract) {
        if (value == null) return "";
        var plain = column.total() == Total.COUNT
                ? Extract.Column.of(column.name(), column.label(), null, column.type())
                : column;
        return of(Objects.requireNonNull(value), plain, extract);
    }
}
