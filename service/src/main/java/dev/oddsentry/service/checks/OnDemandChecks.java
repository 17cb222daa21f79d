package dev.oddsentry.service.checks;

import com.github.kagkarlsson.scheduler.SchedulerClient;
import com.github.kagkarlsson.scheduler.task.CompletionHandler;
import com.github.kagkarlsson.scheduler.task.FailureHandler;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import com.github.kagkarlsson.scheduler.task.TaskInstance;
import com.github.kagkarlsson.scheduler.task.helper.CustomTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import dev.oddsentry.service.checks.CheckStore.NewCheck;
import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import dev.oddsentry.service.definitions.Archive;
import dev.oddsentry.service.evaluation.CheckOrigin;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.rules.CheckState;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Checks that a person asks for. The ask is committed as a running check with a durable task behind it, so it survives this node.
 * Options while one runs, or again with the same request key, gives the same check.
 */
@Component
public class OnDemandChecks {
    /** Pressing twice is not asking twice. */
    private static final Duration JUST_NOW = Duration.ofMinutes(1);

    private static final TaskDescriptor<Void> TASK = TaskDescriptor.of("check");
    private static final int UUID_LENGTH = 36;
    private static final Duration AFTER_OUR_FAILURE = Duration.ofSeconds(1);
    private static final Duration NO_TURN = Duration.ofMillis(300);
    private static final Duration LOOK_AGAIN = Duration.ofMillis(50);

    private final CheckStore store;
    private final CheckRunner runner;
    private final SourceTurns turns;
    private final SchedulerClient tasks;
    private final TransactionTemplate transactions;
    private final Archive archive;
    private final Clock clock;
    private volatile Runnable wake = () -> {};
    private volatile boolean ending;

    OnDemandChecks(
            CheckStore store,
            CheckRunner runner,
            SourceTurns turns,
            SchedulerClient tasks,
            TransactionTemplate transactions,
            Clock clock,
            Archive archive) {
        this.archive = archive;
        this.store = store;
        this.runner = runner;
        this.turns = turns;
        this.tasks = tasks;
        this.transactions = transactions;
        this.clock = clock;
    }

    public CustomTask<Void> task() {
        return Tasks.custom(TASK)
                .onDeadExecutionRevive()
                .onFailure(new FailureHandler.OnFailureRetryLater<>(AFTER_OUR_FAILURE))
                .execute((instance, _) -> run(CheckId.of(instance.getId().substring(0, UUID_LENGTH))));
    }

    private CompletionHandler<Void> run(CheckId checkId) {
        var check = store.find(checkId);
        boolean done = check.isEmpty() || turns.take(check.get().getRuleId(), () -> runNow(checkId), false);
        return done
                ? new CompletionHandler.OnCompleteRemove<>()
                : (complete, operations) ->
                        operations.reschedule(complete, clock.instant().plus(NO_TURN));
    }

    private boolean runNow(CheckId checkId) {
        runner.run(checkId);
        return true;
    }

    /** The durable task that runs a check; an attempt of its own for each, since one that is being executed cannot be planned again. */
    static TaskInstance<Void> task(CheckId checkId, int attempt) {
        return TASK.instance(checkId + "/" + attempt).build();
    }

    /** @param wakeThisNode called after an ask, so that this node looks at once and not at its next poll */
    public void wakeWith(Runnable wakeThisNode) {
        this.wake = wakeThisNode;
    }

    /**
     * @param requestKey null for an ask without one
     * @param again whether to check even if the last check has just ended
     * @return the check that answers the ask, begun now or before
     * @throws RefusedException if the rule is not active
     */
    public CheckId ask(Person by, RuleId ruleId, @Nullable String requestKey, boolean again) {
        CheckId check = transactions.execute(_ -> begin(by, ruleId, requestKey, again));
        wake.run();
        return check;
    }

    private CheckId begin(Person by, RuleId ruleId, @Nullable String requestKey, boolean again) {
        var lock = store.lockRule(ruleId);
        var before = requestKey == null ? Optional.<RuleCheckRecord>empty() : store.ofKey(ruleId, requestKey);
        if (before.isPresent()) return before.get().getId();
        if (lock.state() != RuleState.ACTIVE) {
            throw RefusedException.conflict("The rule is not active. Activate it to check it, or use a preview.");
        }
        var running = store.running(ruleId);
        if (running.isPresent()) {
            // One that waits to be tried again need not wait for a person who asks.
            if (running.get().getRetryAt() != null)
                tasks.schedule(task(running.get().getId(), -running.get().getAttempt()), clock.instant());
            return running.get().getId();
        }
        if (!again && lock.pending().isNone()) {
            var last = store.goodSince(ruleId, clock.instant().minus(JUST_NOW));
            if (last.isPresent()) return last.get().getId();
        }
        CheckId id = CheckId.random();
        var check = new NewCheck(id, ruleId, store.onDemandSlot(ruleId), CheckOrigin.ON_DEMAND, 1, requestKey, by.id());
        if (!store.insert(check))
            throw RefusedException.conflict("A scheduled check of this rule has just started. Try again.");
        tasks.schedule(task(id, 0), clock.instant());
        return id;
    }

    /** @throws RefusedException if it runs no more */
    public void stop(Person by, CheckId checkId) {
        if (!store.stop(checkId, "Stopped by " + by.name() + "."))
            throw RefusedException.conflict("The check is no longer running.");
    }

    /** Approves a check: it runs again for its slot, without safety limits. */
    public void release(Person by, CheckId checkId) {
        transactions.executeWithoutResult(_ -> {
            var check = store.find(checkId).orElseThrow(() -> RefusedException.notFound("No such check."));
            archive.refuse(check.getRuleId());
            store.lockRule(check.getRuleId());
            if (store.running(check.getRuleId()).isPresent())
                throw RefusedException.conflict("Another check of the rule is running. Wait for its outcome first.");
            if (!store.release(checkId, by.id()))
                throw RefusedException.conflict("The check no longer awaits approval.");
            tasks.schedule(task(checkId, check.getAttempt()), clock.instant());
        });
        wake.run();
    }

    public void discard(Person by, CheckId checkId) {
        if (!store.discard(checkId, "Discarded by " + by.name() + "."))
            throw RefusedException.conflict("The check no longer awaits approval.");
    }

    /** Answers callers that wait, so that they do not delay shutdown. */
    @EventListener(ContextClosedEvent.class)
    void end() {
        ending = true;
    }

    /** Waits until the check ends or waits for something itself, within a limit, and returns its state. */
    public RuleCheckRecord await(CheckId checkId, Duration atMost) {
        long until = System.nanoTime() + atMost.toNanos();
        while (true) {
            var check = store.find(checkId).orElseThrow();
            boolean waits = check.getWaitingFor() != null;
            if (check.getState() != CheckState.RUNNING || waits || ending || System.nanoTime() > until) return check;
            try {
                Thread.sleep(LOOK_AGAIN);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return check;
            }
        }
    }
}
