package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.judging.RuleLabels;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.memory.Scope;
import java.time.Duration;
import org.jspecify.annotations.Nullable;

/**
 * One rule at one slot, or one personal copy of it, held against the memory of a saved rule if there is one.
 *
 * @param scope whose memory it is; null where there is none
 * @param copy null where the rule has none
 * @param beganNanos when it was begun
 */
record PreviewRun(
        RuleDefinition rule,
        @Nullable Scope scope,
        @Nullable PersonalCopy copy,
        Moment moment,
        RuleLabels labels,
        Audiences audiences,
        Reckoned reckoned,
        long beganNanos)
        implements AutoCloseable {

    Duration took() {
        return Duration.ofNanos(System.nanoTime() - beganNanos);
    }

    About about(String title) {
        return new About(scope, rule, title, moment, labels, copy);
    }

    /** Those who hear unless a split names others. */
    About about() {
        return about(rule.title());
    }

    @Override
    public void close() {
        reckoned.close();
    }
}
