package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.DeliveryDefinition.Format;
import dev.oddsentry.core.extract.FileRows;
import org.jspecify.annotations.Nullable;

/**
 * A file of a message.
 *
 * @param file the name without its ending, with fields such as {@code {{date}}}; null for the usual
 */
public record Attachment(
        Format format, FileRows rows, @Nullable String file, Csv csv, Page page, Sheet sheet) {
    public static Attachment of(Format format) {
        return new Attachment(format, FileRows.OPEN, null, Csv.USUAL, Page.USUAL, Sheet.USUAL);
    }

    /**
     * How a PDF looks on paper, and a workbook when it is printed.
     *
     * @param orientation null for that in which the columns fit
     * @param margin in millimetres, on all sides
     * @param header on each page, with fields such as {@code {{date}}}; null for none
     * @param footer the same; null for the title
     */
    public record Page(
            Paper paper,
            @Nullable Orientation orientation,
            int margin,
            @Nullable String header,
            @Nullable String footer) {
        public static final Page USUAL = new Page(Paper.A4, null, 15, null, null);
    }

    /**
     * How a workbook looks on a screen.
     *
     * @param frozenColumns how many columns on the left stay in sight, besides the headings
     * @param filter whether the headings have filters
     */
    public record Sheet(int frozenColumns, boolean filter) {
        public static final Sheet USUAL = new Sheet(0, true);
    }

    public enum Orientation {
        PORTRAIT,
        LANDSCAPE
    }

    /**
     * How a CSV file is written.
     *
     * @param encoding a name of IANA's
     * @param mark whether it starts with a byte-order mark; only of Unicode's encodings
     */
    public record Csv(char delimiter, char decimal, String encoding, boolean mark) {
        public static final Csv USUAL = new Csv(',', '.', "UTF-8", true);
    }

    /** Sizes in millimetres, upright. */
    public enum Paper {
        A3(297, 420),
        A4(210, 297),
        A5(148, 210),
        LETTER(216, 279),
        LEGAL(216, 356);

        private final int width;
        private final int height;

        Paper(int width, int height) {
            this.width = width;
            this.height = height;
        }

        public int width() {
            return width;
        }

        public int height() {
            return height;
        }
    }
}
