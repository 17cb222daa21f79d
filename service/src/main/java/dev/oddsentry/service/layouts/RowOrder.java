package dev.oddsentry.service.layouts;

import dev.oddsentry.core.condition.WorseOrder;
import dev.oddsentry.core.definition.LayoutDefinition;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.value.CellOrder;
import java.util.Comparator;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The orders of rows. What is missing comes last in each of them, and rows that are equal stay in the order of the query. */
final class RowOrder {
    static final Comparator<Extract.Row> OF_THE_QUERY = (_, _) -> 0;

    private RowOrder() {}

    /** As a layout says. */
    static Comparator<Extract.Row> of(List<LayoutDefinition.Sort> by, List<LayoutDefinition.Shown> shown) {
        Comparator<Extract.Row> order = OF_THE_QUERY;
        for (var sort : by)
            order = order.thenComparing(byCell(ExtractRows.place(shown, sort.column()), sort.descending()));
        return order;
    }

    /**
     * By severity, and within one by how far the values are beyond the bounds of the condition, as far as they are shown.
     *
     * @param shown the columns of the result that are shown, in their order
     */
    static Comparator<Extract.Row> worstFirst(List<WorseOrder> by, List<Integer> shown) {
        Comparator<Extract.Row> order = Comparator.comparingInt(row -> -badness(row.severity()));
        for (var each : by) {
            int place = shown.indexOf(each.column());
            if (place >= 0) order = order.thenComparing(byCell(place, each.largestFirst()));
        }
        return order;
    }

    /** The same of whole rows of the result. */
    static Comparator<EvaluatedRow> worstFirst(List<WorseOrder> by) {
        Comparator<EvaluatedRow> order = Comparator.comparingInt(row -> -badness(row.severity()));
        for (var each : by)
            order = order.thenComparing(
                    (a, b) -> compare(a.row().get(each.column()), b.row().get(each.column()), each.largestFirst()));
        return order;
    }

    /** Of what is no exception none. */
    private static int badness(@Nullable Severity severity) {
        return severity == null ? 0 : severity.ordinal() + 1;
    }

    private static Comparator<Extract.Row> byCell(int place, boolean largestFirst) {
        return (a, b) ->
                compare(a.cells().get(place).value(), b.cells().get(place).value(), largestFirst);
    }

    private static int compare(@Nullable Object a, @Nullable Object b, boolean largestFirst) {
        if (a == null || b == null) return Boolean.compare(a == null, b == null);
        return largestFirst ? CellOrder.compare(b, a) : CellOrder.compare(a, b);
    }
}
