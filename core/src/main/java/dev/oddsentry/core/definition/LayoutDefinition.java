package dev.oddsentry.core.definition;

import dev.oddsentry.core.extract.CellFormat;
import dev.oddsentry.core.extract.ExtraColumn;
import dev.oddsentry.core.extract.Total;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * How an extract looks: which columns, in which order, how written, how put together.
 *
 * @param columns those shown; empty for all, as they come
 * @param sort empty for the worst first
 * @param groupBy names of columns, outermost first
 * @param rowsInMail how many stand in the mail itself; null for the usual
 * @param stillOpen whether the mail also shows what was told before and is open
 * @param fixed whether others build on it: headings, order and file name never move
 * @param sheet the name of a workbook's sheet; null for the usual
 * @param besides what stands before the columns
 */
public record LayoutDefinition(
        List<Shown> columns,
        List<Sort> sort,
        List<String> groupBy,
        @Nullable Integer rowsInMail,
        boolean stillOpen,
        boolean fixed,
        @Nullable String sheet,
        Set<ExtraColumn> besides) {
    public static final LayoutDefinition USUAL =
            new LayoutDefinition(List.of(), List.of(), List.of(), null, false, false, null, ExtraColumn.ALL);

    public LayoutDefinition {
        columns = List.copyOf(columns);
        sort = List.copyOf(sort);
        groupBy = List.copyOf(groupBy);
        besides = Set.copyOf(besides);
    }

    /** @param label null for the query's; as is the format */
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

    /** Of bare columns alone. */
    static LayoutDefinition of(List<String> columns) {
        return new LayoutDefinition(
                columns.stream().map(Shown::bare).toList(),
                List.of(),
                List.of(),
                null,
                false,
                false,
                null,
                ExtraColumn.ALL);
    }

    /** True where it says nothing but which columns. */
    public boolean isOfBareColumns() {
        return equals(of(columns.stream().map(Shown::column).toList()));
    }

    /** A part that names columns. */
    public enum Part {
        COLUMNS,
        SORT,
        GROUP_BY;

        /** As documents have it. */
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
