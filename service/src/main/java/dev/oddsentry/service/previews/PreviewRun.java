package dev.oddsentry.service.previews;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.evaluation.PersonalCopy;
import dev.oddsentry.service.memory.Scope;
import dev.oddsentry.service.messages.MessageContext;
import dev.oddsentry.service.reporting.Audiences;
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
        Evaluation evaluation,
        long beganNanos)
        implements AutoCloseable {

    Duration took() {
        return Duration.ofNanos(System.nanoTime() - beganNanos);
    }

    MessageContext context(String title) {
        return new MessageContext(scope, rule, title, moment, labels, copy);
    }

    /** The recipients, unless a split has others. */
    MessageContext context() {
        return context(rule.title());
    }

    @Override
    public void close() {
        evaluation.close();
    }
}
