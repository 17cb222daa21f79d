package dev.oddsentry.core.evaluation;

import dev.oddsentry.core.condition.WorseOrder;
import dev.oddsentry.core.value.CellOrder;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** The worst value of a column among the rows that were seen; belongs to one thread. */
final class Extremes {
    private final WorseOrder order;
    private @Nullable Object worst;

    Extremes(WorseOrder order) {
        this.order = order;
    }

    void see(@Nullable Object[] row) {
        Object value = row[order.column()];
        if (value == null) return;
        int compared = worst == null ? 0 : CellOrder.compare(value, worst);
        if (worst == null || (order.largestFirst() ? compared > 0 : compared < 0)) worst = value;
    }

    /** Empty where every value was missing. */
    Optional<RuleEvaluator.Extreme> found() {
        return Optional.ofNullable(worst).map(value -> new RuleEvaluator.Extreme(order, value));
    }
}
