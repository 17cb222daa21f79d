package dev.oddsentry.core.condition;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Judges the rows of one check and keeps the tally of it: how many rows each part left, and where it stayed unknown.
 * Belongs to one thread.
 */
public final class RowEvaluator {
    private final Part[] parts;
    private final long[] left;
    private final List<Map<Integer, Long>> unknownByColumn = new ArrayList<>();
    private final boolean[] unknownParts;
    private final long[] unknown;
    private final CellHighlighter marker;
    private long unknownRows;

    /** @param columns the positions of the columns that the part reads */
    record Part(Expression tree, String text, Node node, Set<Integer> columns) {}

    /**
     * @param text the part as it was written
     * @param rowsLeft rows for which this part and all before it are true
     * @param unknown rows counted as unknown because this part was
     * @param unknownByColumn rows counted as unknown because this part was, by the position of the missing column; such a row is
     *     counted once for each missing column
     */
    public record PartTally(String text, long rowsLeft, long unknown, Map<Integer, Long> unknownByColumn) {}

    RowEvaluator(List<Part> parts, CellHighlighter marker) {
        this.parts = parts.toArray(Part[]::new);
        this.left = new long[this.parts.length];
        this.unknownParts = new boolean[this.parts.length];
        this.unknown = new long[this.parts.length];
        this.marker = marker;
        parts.forEach(_ -> unknownByColumn.add(new LinkedHashMap<>()));
    }

    /** @throws RowFailureException if the condition cannot be calculated on this row */
    public Verdict evaluate(@Nullable Object[] row) {
        boolean allTrue = true;
        for (int i = 0; i < parts.length; i++) {
            Object value = parts[i].node().on(row);
            if (Boolean.FALSE.equals(value)) return Verdict.FALSE;
            unknownParts[i] = value == null;
            allTrue &= value != null;
            if (allTrue) left[i]++;
        }
        if (allTrue) return Verdict.TRUE;
        countUnknown(row);
        return Verdict.UNKNOWN;
    }

    /** One part of the condition on one row. */
    public record PartVerdict(String text, Verdict verdict) {}

    /** What each part says of a row on its own, without counting it; parts that are not reached count too. */
    public List<PartVerdict> partsOn(@Nullable Object[] row) {
        var verdicts = new ArrayList<PartVerdict>();
        for (var part : parts) {
            Object value = part.node().on(row);
            verdicts.add(new PartVerdict(
                    part.text(),
                    value == null ? Verdict.UNKNOWN : Boolean.TRUE.equals(value) ? Verdict.TRUE : Verdict.FALSE));
        }
        return verdicts;
    }

    private void countUnknown(@Nullable Object[] row) {
        unknownRows++;
        for (int i = 0; i < parts.length; i++) {
            if (!unknownParts[i]) continue;
            unknown[i]++;
            for (int column : parts[i].columns()) {
                if (row[column] == null) unknownByColumn.get(i).merge(column, 1L, Long::sum);
            }
        }
    }

    /** Straight after {@link Verdict#UNKNOWN}: the positions of the cells whose being missing made it so. */
    public Set<Integer> missing(@Nullable Object[] row) {
        var missing = new LinkedHashSet<Integer>();
        for (int i = 0; i < parts.length; i++) {
            if (!unknownParts[i]) continue;
            for (int column : parts[i].columns()) if (row[column] == null) missing.add(column);
        }
        return missing;
    }

    /** The positions of the cells that made this row an exception. */
    public Set<Integer> marks(@Nullable Object[] row) {
        return marker.mark(List.of(parts).stream().map(Part::tree).toList(), row);
    }

    public long unknownRows() {
        return unknownRows;
    }

    public List<PartTally> tally() {
        var tally = new ArrayList<PartTally>();
        for (int i = 0; i < parts.length; i++) {
            tally.add(new PartTally(parts[i].text(), left[i], unknown[i], Map.copyOf(unknownByColumn.get(i))));
        }
        return tally;
    }
}
