package dev.oddsentry.core.definition;

import dev.oddsentry.core.extract.CellFormat;
import dev.oddsentry.core.extract.ExtraColumn;
import dev.oddsentry.core.extract.RowsAs;
import dev.oddsentry.core.extract.SeverityLooks;
import dev.oddsentry.core.extract.Total;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * How an extract looks: its columns, their order and formats, and the groups of rows.
 *
 * @param columns empty for all columns of the query
 * @param sort empty for the worst first
 * @param groupBy names of columns, outermost first
 * @param rowsInMail the number of rows in the message; null for the default
 * @param rowsAs how they appear there; null for a table where it fits, else a list
 * @param stillOpen whether the message also lists open findings that were reported earlier
 * @param wholeReport whether the message also lists all rows of the query, with the exceptions marked
 * @param fixed whether other programs read the files, so that headings, order and names never change
 * @param sheet the name of a workbook's sheet; null for the default
 * @param extraColumns columns before the others
 * @param severities how severities are named and coloured
 */
public record LayoutDefinition(
        List<Shown> columns,
        List<Sort> sort,
        List<String> groupBy,
        @Nullable Integer rowsInMail,
        @Nullable RowsAs rowsAs,
        boolean stillOpen,
        boolean wholeReport,
        boolean fixed,
        @Nullable String sheet,
        Set<ExtraColumn> extraColumns,
        SeverityLooks severities) {
    public static final LayoutDefinition USUAL = of(List.of());

    public LayoutDefinition {
        columns = List.copyOf(columns);
        sort = List.copyOf(sort);
        groupBy = List.copyOf(groupBy);
        extraColumns = Set.copyOf(extraColumns);
    }

    /** The same without the rows that are no exceptions. */
    public LayoutDefinition withoutWholeReport() {
        return new LayoutDefinition(
                columns, sort, groupBy, rowsInMail, rowsAs, stillOpen, false, fixed, sheet, extraColumns, severities);
    }

    /** The same with its rows in another form in the message. */
    public LayoutDefinition withRowsAs(@Nullable RowsAs other) {
        return new LayoutDefinition(
                columns,
                sort,
                groupBy,
                rowsInMail,
                other,
                stillOpen,
                wholeReport,
                fixed,
                sheet,
                extraColumns,
                severities);
    }

    /** @param label null for the query's; the same applies to the format */
    public record Shown(
            String column,
            @Nullable String label,
            @Nullable CellFormat format,
            @Nullable Integer width,
            @Nullable Total total) {
        public static Shown bare(String column) {
            return new Shown(column, null, null, null, null);
        }

        boolean isBare() {
            return equals(bare(column));
        }
    }

    public record Sort(String column, boolean descending) {}

    /** A layout that only lists columns. */
    static LayoutDefinition of(List<String> columns) {
        return new LayoutDefinition(
                columns.stream().map(Shown::bare).toList(),
                List.of(),
                List.of(),
                null,
                null,
                false,
                false,
                false,
                null,
                ExtraColumn.ALL,
                SeverityLooks.USUAL);
    }

    /** {@code true} if it only lists columns. */
    public boolean isOfBareColumns() {
        return equals(of(columns.stream().map(Shown::column).toList()));
    }

    /** A field that names columns. */
    public enum Part {
        COLUMNS,
        SORT,
        GROUP_BY;

        /** The name of the field. */
        public String code() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** The columns that a part names, in its order. */
    public List<String> names(Part part) {
        return switch (part) {
            case COLUMNS -> columns.stream().map(Shown::column).toList();
            case SORT -> sort.stream().map(Sort::column).toList();
            case GROUP_BY -> groupBy;
        };
    }

    /** The columns that are shown; empty for all. */
    public List<String> columnNames() {
        return names(Part.COLUMNS);
    }
}
