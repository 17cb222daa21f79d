package dev.oddsentry.core.extract;

import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.value.Type;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The rows that go to people, chosen and ordered, before any format.
 *
 * @param zone where instants are shown
 * @param language in which numbers and dates are written
 * @param rows in the layout's order
 */
public record Extract(ZoneId zone, Language language, List<Column> columns, Arrangement arrangement, List<Row> rows) {

    /** The same in another language. */
    public Extract in(Language other) {
        return new Extract(zone, other, columns, arrangement, rows);
    }

    /** The same columns with other rows. */
    public Extract with(List<Row> others) {
        return new Extract(zone, language, columns, arrangement, others);
    }

    /**
     * @param unit shown behind values, such as {@code min}
     * @param format how values are written; null for the usual way of their type
     * @param words what codes mean, by their text; a value that is not among them is shown as it is
     * @param width in characters, in a sheet; null for what fits
     */
    public record Column(
            String name,
            String label,
            @Nullable String unit,
            Type type,
            @Nullable CellFormat format,
            Map<String, String> words,
            @Nullable Integer width,
            @Nullable Total total) {

        public static Column of(String name, String label, @Nullable String unit, Type type) {
            return new Column(name, label, unit, type, null, Map.of(), null, null);
        }

        /** True where a code is shown as a word, so that a number is text. */
        public boolean hasWords() {
            return !words.isEmpty();
        }

        /** The label with its unit, where values stand alone. */
        public String heading() {
            return unit == null ? label : label + " (" + unit + ")";
        }
    }

    /**
     * How rows stand together.
     *
     * @param groupBy the places of the columns by whose values rows are grouped, outermost first
     * @param besides what stands before the columns
     * @param sheet the name of the sheet in a workbook
     * @param rowsAs how they appear in a message; null for a table where it fits, else a list
     * @param plain whether they are rows that nothing evaluated, which have neither severity nor update
     * @param severities how severities are named and coloured
     */
    public record Arrangement(
            List<Integer> groupBy,
            Set<ExtraColumn> besides,
            String sheet,
            @Nullable RowsAs rowsAs,
            boolean plain,
            SeverityLooks severities) {
        public Arrangement(List<Integer> groupBy, Set<ExtraColumn> besides, String sheet, @Nullable RowsAs rowsAs) {
            this(groupBy, besides, sheet, rowsAs, false, SeverityLooks.USUAL);
        }

        public Arrangement(List<Integer> groupBy, Set<ExtraColumn> besides, String sheet) {
            this(groupBy, besides, sheet, null);
        }

        /** Of rows that nothing evaluated. */
        public static Arrangement plain(List<Integer> groupBy, String sheet, @Nullable RowsAs rowsAs) {
            return new Arrangement(groupBy, Set.of(), sheet, rowsAs, true, SeverityLooks.USUAL);
        }

        /** The same with severities that look as the layout says. */
        public Arrangement with(SeverityLooks looks) {
            return new Arrangement(groupBy, besides, sheet, rowsAs, plain, looks);
        }

        public static final Arrangement USUAL = new Arrangement(List.of(), ExtraColumn.ALL, "Exceptions");
    }

    /**
     * @param severity null of a row that is no exception, or that nothing evaluated
     * @param kinds why it is told; empty where it only stands in the list of what is open
     * @param link where its story is seen, behind log-in; null for nowhere
     * @param since when what it tells of began; null where it begins with this report
     */
    public record Row(
            @Nullable Severity severity,
            Set<UpdateKind> kinds,
            List<Cell> cells,
            @Nullable String link,
            @Nullable Instant since) {
        public Row(@Nullable Severity severity, Set<UpdateKind> kinds, List<Cell> cells) {
            this(severity, kinds, cells, null, null);
        }

        public Row linked(String to) {
            return new Row(severity, kinds, cells, to, since);
        }

        public Row lasting(@Nullable Instant from) {
            return new Row(severity, kinds, cells, link, from);
        }

        /** Nothing that these readers have to see to any more. */
        public boolean isOver() {
            return kinds.contains(UpdateKind.CLEARED) || kinds.contains(UpdateKind.MOVED);
        }
    }

    /**
     * @param marked whether it made the row an exception
     * @param was what was last reported where it differs now, {@link #WAS_MISSING} for no value; null where it does not differ
     * @param link where the value leads; null for nowhere
     */
    public record Cell(
            @Nullable Object value,
            boolean marked,
            @Nullable Object was,
            @Nullable String link) {
        public Cell(@Nullable Object value, boolean marked, @Nullable Object was) {
            this(value, marked, was, null);
        }

        public Cell linked(@Nullable String to) {
            return to == null ? this : new Cell(value, marked, was, to);
        }

        /** Stands for the value that was missing. */
        public static final Object WAS_MISSING = Missing.VALUE;

        private enum Missing {
            VALUE
        }

        public static Cell plain(@Nullable Object value) {
            return new Cell(value, false, null);
        }
    }

    public boolean hasTotals() {
        return columns.stream().anyMatch(column -> column.total() != null);
    }
}
