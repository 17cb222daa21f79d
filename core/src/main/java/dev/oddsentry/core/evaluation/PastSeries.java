package dev.oddsentry.core.evaluation;

import dev.oddsentry.core.condition.Grouping.Measured;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.history.Series;

/** What earlier checks measured of each group. */
public interface PastSeries {
    PastSeries NONE = (_, _) -> Series.EMPTY;

    /** @param group digest of the group's {@code per} values */
    Series of(Digest group, Measured measured);
}
