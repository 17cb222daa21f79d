package dev.oddsentry.service.evaluation;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.memory.Scope;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.sources.Source;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * One attempt at a check, with everything as it was at the start. The commit fails if any of it has changed since.
 *
 * @param number of the attempt; a later attempt makes this one invalid
 * @param moment the slot, in the rule's zone and calendar
 * @param memoryEpoch of the rule's memory
 * @param goodSlots the number of successful scheduled checks so far
 * @param pending the effect of edits and choices since the last successful check
 * @param released whether a person approved the check
 * @param timeLimit of its query, given or learned
 * @param thresholdVersions the version of each threshold that the rule uses, by name
 * @param copy the personal copy that is checked; null where the rule has none, and for the check of all of them
 * @param newcomer whether the copy was added after the rule's first check; of the whole rule, whether a copy added now would be
 * @param calendarRevision of the calendar that the rule goes by; null where it names none
 */
public record Attempt(
        CheckId checkId,
        int number,
        Moment moment,
        CheckOrigin origin,
        long memoryEpoch,
        long goodSlots,
        PendingEffect pending,
        boolean released,
        Duration timeLimit,
        Current<RuleDefinition> rule,
        Current<QueryDefinition> query,
        Source source,
        Thresholds thresholds,
        Map<String, String> thresholdVersions,
        @Nullable Integer calendarRevision,
        @Nullable PersonalCopy copy,
        boolean newcomer) {

    /** The same for one of its personal copies, with the values that are its own. */
    public Attempt of(PersonalCopy one, PriorChecks prior) {
        var last = prior.lastGoodSlot() == null ? Schedules.startOf(rule.definition()) : prior.lastGoodSlot();
        return new Attempt(
                checkId,
                number,
                moment.since(last),
                origin,
                memoryEpoch,
                prior.goodSlots(),
                pending.and(prior.pending()),
                released,
                timeLimit,
                new Current<>(rule.id(), rule.revision(), one.applyTo(rule.definition())),
                query,
                source,
                thresholds,
                thresholdVersions,
                calendarRevision,
                one,
                prior.newcomer());
    }

    public Scope scope() {
        return new Scope(ruleId(), copy == null ? null : copy.key());
    }

    public Instant slot() {
        return moment.slot();
    }

    public RuleId ruleId() {
        return rule.ruleId();
    }

    /** True where holds, misses and history count it: checks on the schedule, or those of other occasions of a rule that has none. */
    public boolean isCounted() {
        return origin == CheckOrigin.SCHEDULED
                || (origin != CheckOrigin.ON_DEMAND && rule.definition().isCountedByTriggers());
    }

    MinimumDuration.Tick tick() {
        return new MinimumDuration.Tick(goodSlots, isCounted(), slot());
    }

    public RuleLabels labels() {
        return new RuleLabels(rule.definition().groups(), query.definition(), thresholds, moment().today());
    }
}
