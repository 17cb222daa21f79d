package dev.oddsentry.service.evaluation;

import dev.oddsentry.core.condition.Grouping.Measured;
import dev.oddsentry.core.condition.Grouping.Need;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.PastSeries;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.measurements.MeasurementStore;
import dev.oddsentry.service.memory.Scope;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** A rule's past as its own checks left it. */
public record StoredMeasurements(
        MeasurementStore store, Scope scope, RuleDefinition rule, QueryDefinition query, Moment moment, long goodSlots)
        implements PriorMeasurements {

    @Override
    public PastSeries series(Map<Measured, Need> needs) {
        return needs.isEmpty() ? PastSeries.NONE : store.before(moment, scope.ruleId(), rule, query, needs);
    }

    @Override
    public List<List<@Nullable Object>> groupsOfLast(int checks) {
        return store.groupsOfLast(scope, goodSlots, checks);
    }
}
