package dev.oddsentry.core.condition;

import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.value.Columns;
import java.util.List;

/**
 * What names mean where a condition stands.
 *
 * @param columns what a name means: the query's columns, or the group's columns and measures
 * @param rows the query's columns, which is what names mean inside an aggregate
 */
record Scope(Place place, Columns columns, Columns rows, Thresholds thresholds) {

    enum Place {
        /** Over one row of the query. */
        ROW,
        /** Over a group of rows; single rows are seen through aggregates alone. */
        GROUP,
        /** Over the counts of a whole check. */
        CHECK
    }

    static Scope ofRows(Columns columns, Thresholds thresholds) {
        return new Scope(Place.ROW, columns, columns, thresholds);
    }

    static Scope ofCheck() {
        var none = new Columns(List.of());
        return new Scope(Place.CHECK, none, none, Thresholds.NONE);
    }
}
