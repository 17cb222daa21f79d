package dev.oddsentry.core.extract;

import java.util.AbstractList;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The lines of an extract in order: the rows, with the headings and totals of their groups. */
public final class Outline {
    /** One line. */
    public sealed interface Line {}

    public record RowLine(Extract.Row row) implements Line {}

    /** @param values the group's, one for each level */
    public record GroupLine(List<@Nullable Object> values, int rows) implements Line {}

    /**
     * @param values of the group; empty for all rows
     * @param totals one for each column; null where it has none
     * @param rows how many they are of; what is over does not count
     * @param reported whether each of those is reported by this extract; if not, they are all there are
     */
    public record TotalLine(List<@Nullable Object> values, List<@Nullable Object> totals, int rows, boolean reported)
            implements Line {}

    private Outline() {}

    /** Rows of one group stand together where its first row stood; the order within is kept. */
    public static List<Line> of(Extract extract) {
        return of(extract, Integer.MAX_VALUE);
    }

    /**
     * The same with some of the rows left out, which are counted all the same: in headings of groups and in totals.
     *
     * @param most so many of the extract's rows have lines, the first ones; groups without any have none either
     */
    public static List<Line> of(Extract extract, int most) {
        if (most < extract.rows().size()) return shortened(extract, most);
        var groupBy = extract.arrangement().groupBy();
        if (groupBy.isEmpty() && !extract.hasTotals()) return new RowsAlone(extract.rows());
        var lines = new ArrayList<Line>();
        if (groupBy.isEmpty()) extract.rows().forEach(row -> lines.add(new RowLine(row)));
        else
            for (var group : groups(extract, groupBy)) {
                lines.add(new GroupLine(group.values(), group.rows().size()));
                group.rows().forEach(row -> lines.add(new RowLine(row)));
                if (extract.hasTotals()) lines.add(total(extract, group.values(), group.rows()));
            }
        if (extract.hasTotals() && !extract.rows().isEmpty()) lines.add(total(extract, List.of(), extract.rows()));
        return lines;
    }

    private static List<Line> shortened(Extract extract, int most) {
        Set<Extract.Row> shown = Collections.newSetFromMap(new IdentityHashMap<>());
        shown.addAll(extract.rows().subList(0, most));
        var lines = new ArrayList<Line>();
        boolean skipped = false;
        for (var line : of(extract)) {
            switch (line) {
                case RowLine(var row) -> {
                    if (!shown.contains(row)) continue;
                    skipped = false;
                }
                case GroupLine group -> skipped = true;
                case TotalLine(var values, var _, int _, boolean _) -> {
                    if (!values.isEmpty() && skipped) {
                        lines.removeLast();
                        continue;
                    }
                }
            }
            if (line instanceof GroupLine && !lines.isEmpty() && lines.getLast() instanceof GroupLine)
                lines.removeLast();
            lines.add(line);
        }
        if (!lines.isEmpty() && lines.getLast() instanceof GroupLine) lines.removeLast();
        return lines;
    }

    /** A view, so that a great extract is not held once more. */
    private static final class RowsAlone extends AbstractList<Line> {
        private final List<Extract.Row> rows;

        RowsAlone(List<Extract.Row> rows) {
            this.rows = rows;
        }

        @Override
        public Line get(int index) {
            return new RowLine(rows.get(index));
        }

        @Override
        public int size() {
            return rows.size();
        }
    }

    private record Group(List<@Nullable Object> values, List<Extract.Row> rows) {}

    private static List<Group> groups(Extract extract, List<Integer> groupBy) {
        Map<Object, Group> groups = new LinkedHashMap<>();
        for (var row : extract.rows()) {
            List<@Nullable Object> values = new ArrayList<>();
            for (int column : groupBy) values.add(row.cells().get(column).value());
            groups.computeIfAbsent(values, _ -> new Group(values, new ArrayList<>()))
                    .rows()
                    .add(row);
        }
        return List.copyOf(groups.values());
    }

    private static TotalLine total(Extract extract, List<@Nullable Object> values, List<Extract.Row> all) {
        // What is over no longer counts.
        var rows = all.stream().filter(row -> !row.isOver()).toList();
        var totals = new ArrayList<@Nullable Object>();
        for (int i = 0; i < extract.columns().size(); i++) {
            var total = extract.columns().get(i).total();
            int at = i;
            var cells = new ArrayList<@Nullable Object>();
            if (total != null) rows.forEach(row -> cells.add(row.cells().get(at).value()));
            totals.add(total == null ? null : total.of(cells));
        }
        boolean reported =
                !rows.isEmpty() && rows.stream().noneMatch(row -> row.kinds().isEmpty());
        return new TotalLine(values, totals, rows.size(), reported);
    }
}
