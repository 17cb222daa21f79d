package dev.oddsentry.service.work;

import com.github.kagkarlsson.scheduler.task.CompletionHandler;
import com.github.kagkarlsson.scheduler.task.helper.CustomTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import dev.oddsentry.service.checks.CheckRunner;
import dev.oddsentry.service.checks.SourceTurns;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.rules.RuleStates;
import dev.oddsentry.service.rules.RuleStates.NextSlot;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.schedules.SlotTasks;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.springframework.stereotype.Component;

/** What the slot task does when it wakes: runs the check of the slot that is due, and plans the next. */
@Component
public class SlotRun {
    /** While another check of the rule runs, or its source has no turn free. */
    private static final Duration ASK_AGAIN = Duration.ofMillis(500);

    private static final Duration CLOCK_AHEAD = Duration.ofSeconds(5);

    private final DefinitionStore definitions;
    private final Schedules schedules;
    private final RuleStates rules;
    private final CheckRunner checks;
    private final SourceTurns turns;
    private final Clock clock;

    SlotRun(
            DefinitionStore definitions,
            Schedules schedules,
            RuleStates rules,
            CheckRunner checks,
            SourceTurns turns,
            Clock clock) {
        this.definitions = definitions;
        this.schedules = schedules;
        this.rules = rules;
        this.checks = checks;
        this.turns = turns;
        this.clock = clock;
    }

    public CustomTask<Void> task() {
        return Tasks.custom(SlotTasks.SLOT)
                .onDeadExecutionRevive()
                .onFailure((complete, operations) ->
                        operations.reschedule(complete, clock.instant().plus(ASK_AGAIN)))
                .execute((instance, _) -> wake(RuleId.of(instance.getId())));
    }

    /** Whether a slot is due is for the database's clock to say: this node's may have jumped. */
    CompletionHandler<Void> wake(RuleId ruleId) {
        var next = rules.nextSlot(ruleId);
        if (next.isPresent() && next.get().isDue()) {
            Instant now = next.get().now();
            Instant slot = next.get().slot();
            var early = Duration.between(now, slot.plus(turns.delay(ruleId)));
            if (early.isPositive()) return wakeAgainAt(clock.instant().plus(early));
            var rest = turns.rest(ruleId);
            if (rest.isPositive()) return wakeAgainAt(clock.instant().plus(rest));
            boolean done = turns.take(ruleId, () -> run(ruleId, slot, now), false);
            if (!done) return wakeAgainAt(clock.instant().plus(ASK_AGAIN));
            next = rules.nextSlot(ruleId);
        }
        return next.map(this::wakeFor).orElse(new CompletionHandler.OnCompleteRemove<>());
    }

    /** A node whose clock is ahead would be woken again at once, so it looks again when it is time, or in a while. */
    private CompletionHandler<Void> wakeFor(NextSlot next) {
        boolean ahead = !next.isDue() && !next.slot().isAfter(clock.instant());
        if (!ahead) return wakeAgainAt(next.slot());
        var until = Duration.between(next.now(), next.slot());
        return wakeAgainAt(clock.instant().plus(until.compareTo(CLOCK_AHEAD) < 0 ? until : CLOCK_AHEAD));
    }

    private static CompletionHandler<Void> wakeAgainAt(Instant when) {
        return (complete, operations) -> operations.reschedule(complete, when);
    }

    /** @return false: another check of the rule is running, ask again */
    private boolean run(RuleId ruleId, Instant slot, Instant now) {
        var rule = definitions.rule(ruleId).orElseThrow().definition();
        var query = definitions.query(rule.query()).orElseThrow().definition();
        var due = MissedSlots.of(rule, query, schedules.of(rule), schedules.moment(rule, slot), now);
        if (due.run().isEmpty()) checks.skip(ruleId, slot, due.slotsCovered());
        else if (!checks.runScheduled(ruleId, due.run().get(), due.slotsCovered())) return false;
        rules.moveOn(ruleId, slot, due.next().orElse(null));
        return true;
    }
}
