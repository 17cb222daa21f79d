package dev.oddsentry.service.checks;

import com.github.kagkarlsson.scheduler.SchedulerClient;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import dev.oddsentry.service.checks.CheckStore.NewCheck;
import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Checks that a person asks for. The ask is committed as a running check with a durable task behind it, so it survives this node.
 * Asking while one runs, or again with the same request key, gives the same check.
 */
@Component
public class OnDemand {
    private static final TaskDescriptor<Void> TASK = TaskDescriptor.of("check");
    private static final Duration LOOK_AGAIN = Duration.ofMillis(50);

    private final CheckStore store;
    private final CheckRunner runner;
    private final SchedulerClient tasks;
    private final TransactionTemplate transactions;
    private final Clock clock;
    private volatile Runnable wake = () -> {};

    OnDemand(
            CheckStore store,
            CheckRunner runner,
            SchedulerClient tasks,
            TransactionTemplate transactions,
            Clock clock) {
        this.store = store;
        this.runner = runner;
        this.tasks = tasks;
        this.transactions = transactions;
        this.clock = clock;
    }

    public OneTimeTask<Void> task() {
        return Tasks.oneTime(TASK).execute((instance, _) -> runner.run(UUID.fromString(instance.getId())));
    }

    /** @param wakeThisNode called after an ask, so that this node looks at once and not at its next poll */
    public void wakeWith(Runnable wakeThisNode) {
        this.wake = wakeThisNode;
    }

    /**
     * @param requestKey null for an ask without one
     * @return the check that answers the ask, begun now or before
     * @throws RefusedException if the rule is not active
     */
    UUID ask(Person by, UUID ruleId, @Nullable String requestKey) {
        UUID check = transactions.execute(_ -> begin(by, ruleId, requestKey));
        wake.run();
        return check;
    }

    private UUID begin(Person by, UUID ruleId, @Nullable String requestKey) {
        var lock = store.lockRule(ruleId);
        var before = requestKey == null ? Optional.<RuleCheckRecord>empty() : store.ofKey(ruleId, requestKey);
        if (before.isPresent()) return before.get().getId();
        if (lock.state() != RuleState.ACTIVE) {
            throw RefusedException.conflict("The rule is not active, so it cannot be checked; a preview always can.");
        }
        var running = store.running(ruleId);
        if (running.isPresent()) return running.get().getId();
        UUID id = UUID.randomUUID();
        var check = new NewCheck(id, ruleId, store.onDemandSlot(ruleId), CheckOrigin.ON_DEMAND, 1, requestKey, by.id());
        if (!store.insert(check))
            throw RefusedException.conflict("A scheduled check of this rule began just now; ask again.");
        tasks.schedule(TASK.instance(id.toString()).build(), clock.instant());
        return id;
    }

    /** Waits for the check to end, at most so long; then tells how it stands. */
    RuleCheckRecord await(UUID checkId, Duration atMost) {
        long until = System.nanoTime() + atMost.toNanos();
        while (true) {
            var check = store.find(checkId).orElseThrow();
            if (check.getState() != CheckState.RUNNING || System.nanoTime() > until) return check;
            try {
                Thread.sleep(LOOK_AGAIN);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return check;
            }
        }
    }
}
