package dev.oddsentry.service.schedules;

import com.github.kagkarlsson.scheduler.task.CompletionHandler;
import com.github.kagkarlsson.scheduler.task.helper.CustomTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import dev.oddsentry.core.schedule.Schedule;
import dev.oddsentry.service.checks.CheckRunner;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.rules.RuleStates;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** What the slot task does when it wakes: runs the check of the slot that is due, and plans the next. */
@Component
public class SlotRun {
    /** While another check of the rule runs. */
    private static final Duration ASK_AGAIN = Duration.ofSeconds(1);

    private final DefinitionStore definitions;
    private final RuleStates rules;
    private final CheckRunner checks;
    private final Clock clock;

    SlotRun(DefinitionStore definitions, RuleStates rules, CheckRunner checks, Clock clock) {
        this.definitions = definitions;
        this.rules = rules;
        this.checks = checks;
        this.clock = clock;
    }

    public CustomTask<Void> task() {
        return Tasks.custom(SlotTasks.SLOT)
                .onDeadExecutionRevive()
                .onFailure((complete, operations) ->
                        operations.reschedule(complete, clock.instant().plus(ASK_AGAIN)))
                .execute((instance, _) -> wake(UUID.fromString(instance.getId())));
    }

    private CompletionHandler<Void> wake(UUID ruleId) {
        var slot = rules.nextSlot(ruleId);
        if (slot.isPresent() && !slot.get().isAfter(clock.instant()) && !run(ruleId, slot.get())) {
            return wakeAgainAt(clock.instant().plus(ASK_AGAIN));
        }
        return rules.nextSlot(ruleId).map(SlotRun::wakeAgainAt).orElse(new CompletionHandler.OnCompleteRemove<>());
    }

    private static CompletionHandler<Void> wakeAgainAt(Instant when) {
        return (complete, operations) -> operations.reschedule(complete, when);
    }

    /** @return false: another check of the rule is running, ask again */
    private boolean run(UUID ruleId, Instant slot) {
        Schedule schedule = definitions.rule(ruleId).orElseThrow().definition().scheduleInZone();
        var due = schedule.due(slot, clock.instant());
        if (!checks.runScheduled(ruleId, due.latest(), due.slots())) return false;
        Optional<Instant> next = due.next();
        rules.moveOn(ruleId, slot, next.orElse(null));
        return true;
    }
}
