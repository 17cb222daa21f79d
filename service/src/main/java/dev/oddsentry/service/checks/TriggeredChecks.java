package dev.oddsentry.service.checks;

import com.github.kagkarlsson.scheduler.task.CompletionHandler;
import com.github.kagkarlsson.scheduler.task.FailureHandler;
import com.github.kagkarlsson.scheduler.task.helper.CustomTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import dev.oddsentry.service.checks.CheckStore.NewCheck;
import dev.oddsentry.service.db.generated.tables.records.RuleTriggerRecord;
import dev.oddsentry.service.evaluation.CheckOrigin;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.triggers.Triggers;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Checks that an outside event or another rule's check begins. Occasions of a rule are answered in the order in which they came, one
 * check at a time; arrivals of one event with the same values that wait together become one check.
 */
@Component
public class TriggeredChecks {
    private static final Duration ASK_AGAIN = Duration.ofMillis(500);

    private final Triggers triggers;
    private final CheckStore store;
    private final CheckRunner runner;
    private final SourceTurns turns;
    private final TransactionTemplate transactions;
    private final Clock clock;

    TriggeredChecks(
            Triggers triggers,
            CheckStore store,
            CheckRunner runner,
            SourceTurns turns,
            TransactionTemplate transactions,
            Clock clock) {
        this.triggers = triggers;
        this.store = store;
        this.runner = runner;
        this.turns = turns;
        this.transactions = transactions;
        this.clock = clock;
    }

    public CustomTask<Void> task() {
        return Tasks.custom(Triggers.TASK)
                .onDeadExecutionRevive()
                .onFailure(new FailureHandler.OnFailureRetryLater<>(ASK_AGAIN))
                .execute((instance, _) -> run(Long.parseLong(instance.getId()))
                        ? new CompletionHandler.OnCompleteRemove<>()
                        : (complete, operations) ->
                                operations.reschedule(complete, clock.instant().plus(ASK_AGAIN)));
    }

    /** @return false: not its turn yet, ask again */
    private boolean run(long id) {
        var trigger = triggers.find(id);
        if (trigger.isEmpty()) return true;
        RuleId ruleId = trigger.get().getRuleId();
        return turns.take(ruleId, () -> answer(id, ruleId), false);
    }

    private boolean answer(long id, RuleId ruleId) {
        CheckId known = triggers.find(id).map(RuleTriggerRecord::getCheckId).orElse(null);
        if (known != null) {
            // Begun by this very task, on a node that has died, or by the head of those it came with.
            if (triggers.isHead(id, known) && !store.isWaiting(known)) runner.run(known);
            return true;
        }
        var begun = transactions.execute(_ -> begin(id, ruleId));
        begun.check().ifPresent(runner::run);
        return begun.done();
    }

    /** @param done false: not its turn yet */
    private record Begun(boolean done, Optional<CheckId> check) {
        static final Begun NOTHING = new Begun(true, Optional.empty());
        static final Begun LATER = new Begun(false, Optional.empty());
    }

    private Begun begin(long id, RuleId ruleId) {
        var lock = store.lockRule(ruleId);
        if (lock.state() != RuleState.ACTIVE) {
            triggers.drop(ruleId);
            return Begun.NOTHING;
        }
        var waiting = triggers.waiting(ruleId);
        if (waiting.stream().noneMatch(each -> each.getId() == id)) return Begun.NOTHING;
        if (waiting.getFirst().getId() != id || store.running(ruleId).isPresent()) return Begun.LATER;
        var together = together(waiting);
        var last = together.getLast();
        boolean chained = last.getParentId() != null;
        var check = new NewCheck(
                CheckId.random(),
                ruleId,
                chained ? last.getSlot() : store.slotAfterLast(ruleId, last.getSlot()),
                chained ? CheckOrigin.CHAINED : CheckOrigin.EVENT,
                together.size(),
                null,
                null);
        boolean begun = store.insert(check, last);
        // Another rule's slot that this one has had a check for: it answers both.
        CheckId answer = begun
                ? check.id()
                : store.ofSlot(ruleId, check.slot()).orElseThrow().getId();
        triggers.answer(together.stream().map(RuleTriggerRecord::getId).toList(), answer);
        return new Begun(true, begun ? Optional.of(answer) : Optional.empty());
    }

    /** Those at the head of the queue that one check answers. */
    private static List<RuleTriggerRecord> together(List<RuleTriggerRecord> waiting) {
        var head = waiting.getFirst();
        if (head.getParentId() != null) return List.of(head);
        return waiting.stream()
                .takeWhile(each -> Objects.equals(each.getEvent(), head.getEvent())
                        && Objects.equals(each.getEventValues(), head.getEventValues()))
                .toList();
    }
}
