package dev.oddsentry.core.extract;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.value.Type;
import java.math.RoundingMode;
import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.text.Format;
import java.time.format.DateTimeFormatter;
import java.time.temporal.TemporalAccessor;
import java.util.List;

/**
 * How numbers, or dates and times, are written: {@code #,##0.00}, {@code 0.0%}, {@code d MMM yyyy HH:mm}. What the marks mean is the same in
 * mails and in sheets.
 */
public record CellFormat(String pattern) {
    private static final String NUMBER = "(#,##)?[#0]+(\\.[0#]+)?%?";
    private static final String TIME = "(?=.*[yMdEHms])([yMdEHms]+|[ ./:,-])+";

    /** @throws InvalidDefinitionException if it is neither */
    public static CellFormat of(String pattern) {
        String text = pattern.strip();
        if ((text.matches(NUMBER) || text.matches(TIME)) && canBeWritten(text)) return new CellFormat(text);
        throw new InvalidDefinitionException(List.of(Problem.error(
                "\"" + pattern + "\" is not a format. Examples: 0.00, #,##0.0, 0%, d MMM yyyy HH:mm", "", null)));
    }

    /** The shape says which signs stand there; that they go together is for those who write with them to say. */
    private static boolean canBeWritten(String pattern) {
        try {
            Format format = pattern.matches(NUMBER)
                    ? new DecimalFormat(pattern)
                    : DateTimeFormatter.ofPattern(pattern).toFormat();
            return format != null;
        } catch (IllegalArgumentException notTogether) {
            return false;
        }
    }

    public boolean isOfNumbers() {
        return pattern.matches(NUMBER);
    }

    public boolean fits(Type type) {
        return isOfNumbers() ? type == Type.NUMBER : type.isMoment() || type == Type.TIME;
    }

    /** Digits that are cut are rounded half away from zero, as {@code round} does. */
    String number(Object number, Language language) {
        var format = new DecimalFormat(pattern, DecimalFormatSymbols.getInstance(language.locale()));
        format.setRoundingMode(RoundingMode.HALF_UP);
        return format.format(number);
    }

    String time(TemporalAccessor time, Language language) {
        return DateTimeFormatter.ofPattern(pattern, language.locale()).format(time);
    }

    /** The pattern as sheets have it. */
    public String ofSheet() {
        return isOfNumbers()
                ? pattern
                : pattern.replace("EEEE", "dddd")
                        .replaceAll("E+", "ddd")
                        .replace("HH", "hh")
                        .replace("H", "h");
    }
}
