package dev.oddsentry.service.queries;

import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.failures.FailureKind;
import java.math.BigDecimal;
import org.jspecify.annotations.Nullable;

/** How much of a result may be held: what one row may have, and what is kept of a whole result. Counted in characters or bytes. */
final class RowSize {
    static final int MOST_OF_ROW = 50_000;
    static final long MOST_HELD = 20_000_000;
    private static final int OTHER_CELL = 16;
    private static final int BITS_OF_DIGIT = 3;

    private RowSize() {}

    /** @throws QueryFailureException if the row is too large, with the column that takes most of it */
    static int of(@Nullable Object[] row, Columns columns, long number) {
        int size = 0;
        int widest = 0;
        for (int i = 0; i < row.length; i++) {
            size += of(row[i]);
            if (of(row[i]) > of(row[widest])) widest = i;
        }
        if (size <= MOST_OF_ROW) return size;
        String column = columns.at(widest).name();
        throw new QueryFailureException(
                FailureKind.RESULT_TOO_LARGE,
                "Row " + number + " of the result is too large: the column \"" + column
                        + "\" has " + of(row[widest]) + " characters, and a row may have " + MOST_OF_ROW
                        + " in all. Select less of it, for example left(" + column + ", 1000).");
    }

    private static int of(@Nullable Object cell) {
        return switch (cell) {
            case String text -> text.length();
            case byte[] bytes -> bytes.length;
            case BigDecimal number -> OTHER_CELL + number.unscaledValue().bitLength() / BITS_OF_DIGIT;
            case null, default -> OTHER_CELL;
        };
    }
}
