package dev.oddsentry.service.evaluation;

import dev.oddsentry.core.condition.Grouping.Measured;
import dev.oddsentry.core.condition.Grouping.Need;
import dev.oddsentry.core.evaluation.PastSeries;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** What earlier checks left for this one. */
public interface PriorMeasurements {
    PriorMeasurements NONE = new PriorMeasurements() {
        @Override
        public PastSeries series(Map<Measured, Need> needs) {
            return PastSeries.NONE;
        }

        @Override
        public List<List<@Nullable Object>> groupsOfLast(int checks) {
            return List.of();
        }
    };

    PastSeries series(Map<Measured, Need> needs);

    /** The groups that one of the last so many good checks saw. */
    List<List<@Nullable Object>> groupsOfLast(int checks);
}
