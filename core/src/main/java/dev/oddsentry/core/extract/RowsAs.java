package dev.oddsentry.core.extract;

/** How rows appear in a message. Files always have a table. */
public enum RowsAs {
    /** Headings once, a line for each row; on a narrow screen a block with labels for each row. */
    TABLE,
    /** Two lines for each row, with labels; for many columns or long texts. */
    LIST,
    /** Numbers and totals alone, of each group and overall; no rows. */
    FIGURES
}
