package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.judging.RuleLabels;
import dev.oddsentry.core.time.Moment;
import java.time.Duration;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * One rule at one slot, held against the memory of a saved rule if there is one.
 *
 * @param ruleId null where there is none
 * @param beganNanos when it was begun
 */
record PreviewRun(
        RuleDefinition rule,
        @Nullable UUID ruleId,
        Moment moment,
        RuleLabels labels,
        Audiences audiences,
        Reckoned reckoned,
        long beganNanos)
        implements AutoCloseable {

    Duration took() {
        return Duration.ofNanos(System.nanoTime() - beganNanos);
    }

    @Override
    public void close() {
        reckoned.close();
    }
}
