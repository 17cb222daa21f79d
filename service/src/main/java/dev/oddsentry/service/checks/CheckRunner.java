package dev.oddsentry.service.checks;

import dev.oddsentry.service.checks.CheckStore.NewCheck;
import dev.oddsentry.service.checks.UnitRunner.UnitOutcome;
import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.CheckOrigin;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.rules.CheckState;
import java.time.Instant;
import org.springframework.stereotype.Component;

/**
 * Runs one check from its slot to its messages: {@link CheckStarter} fixes what it is calculated with, {@link UnitRunner} evaluates, plans the report and
 * writes the messages, {@link CheckCommit} stores all of it or nothing. For a rule with personal copies, {@link PersonalCopies} runs a unit for each.
 *
 * <p>If this node dies on the way, the durable task behind the check runs again elsewhere and starts the next attempt; whatever
 * this attempt had not committed was never there.
 */
@Component
public class CheckRunner {
    /** A node may end for many reasons; one that ends each time it runs a check ends because of it. */
    private static final int MOST_INTERRUPTIONS = 4;

    /** A check that finds its rule or memory changed runs again at once, so often. */
    private static final int MOST_ATTEMPTS_WHEN_STALE = 3;

    private final CheckStore store;
    private final CheckStarter starter;
    private final StartGate gate;
    private final UnitRunner units;
    private final CheckCommit commit;
    private final FailureHandler failures;
    private final PersonalCopies copies;
    private final CheckMetrics metrics;

    CheckRunner(
            CheckStore store,
            CheckStarter starter,
            StartGate gate,
            UnitRunner units,
            CheckCommit commit,
            FailureHandler failures,
            PersonalCopies copies,
            CheckMetrics metrics) {
        this.store = store;
        this.starter = starter;
        this.gate = gate;
        this.units = units;
        this.commit = commit;
        this.failures = failures;
        this.copies = copies;
        this.metrics = metrics;
    }

    /** @return false: another check of this rule is running; ask again */
    public boolean runScheduled(RuleId ruleId, Instant slot, int slotsCovered) {
        var leftBehind = store.running(ruleId);
        if (leftBehind.isPresent() && isReplaceable(leftBehind.get())) {
            var waiting = leftBehind.get();
            failures.replaced(waiting, copies.replaced(waiting));
        } else if (leftBehind.isPresent() && leftBehind.get().getOrigin() == CheckOrigin.SCHEDULED) {
            // A rule's slots are one task's, so the node that began this one has died; its slot comes before any later
            // one.
            run(leftBehind.get().getId());
            return false;
        }
        store.insert(new NewCheck(CheckId.random(), ruleId, slot, CheckOrigin.SCHEDULED, slotsCovered, null, null));
        var check = store.ofSlot(ruleId, slot);
        if (check.isEmpty()) return false;
        metrics.began(slot);
        run(check.get().getId());
        return true;
    }

    /** One that waits gives way to a later slot, unless nobody else would ask what its event asks. */
    private static boolean isReplaceable(RuleCheckRecord check) {
        return check.getRetryAt() != null && check.getOrigin() != CheckOrigin.EVENT;
    }

    /** Keeps that slots were missed and are not made up for. */
    public void skip(RuleId ruleId, Instant slot, int slots) {
        CheckId id = CheckId.random();
        if (!store.insert(new NewCheck(id, ruleId, slot, CheckOrigin.SCHEDULED, slots, null, null))) return;
        store.end(
                id,
                0,
                CheckState.SKIPPED,
                (slots == 1 ? "The slot was" : slots + " slots were")
                        + " missed while the service was down; the rule skips missed slots.");
    }

    /** Runs a check whose state is running; a check that has ended is left as it is. */
    void run(CheckId checkId) {
        try (var log = new CheckLog(checkId)) {
            attempts(checkId);
            store.find(checkId).ifPresent(check -> {
                log.left(check);
                if (check.getState() != CheckState.RUNNING) metrics.ended(check.getState());
            });
        }
    }

    private void attempts(CheckId checkId) {
        for (int i = 0; i < MOST_ATTEMPTS_WHEN_STALE; i++) {
            var taken = store.takeUp(checkId, i > 0);
            if (taken.isEmpty()) return;
            if (taken.get().interruptions() > MOST_INTERRUPTIONS) {
                failures.fail(
                        checkId,
                        taken.get().attempt(),
                        FailureReasons.endedTheService(taken.get().interruptions()));
                return;
            }
            if (attempt(checkId, taken.get().attempt())) return;
        }
        store.takeUp(checkId, true)
                .ifPresent(taken -> store.end(
                        checkId, taken.attempt(), CheckState.RESTARTED, "The rule was changed during every attempt."));
    }

    /** @return false: something changed since it started, and nothing was written */
    private boolean attempt(CheckId checkId, int number) {
        try {
            var begun = starter.begin(checkId, number);
            if (begun.isEmpty()) return true;
            var attempt = begun.get();
            CheckLog.began(attempt.rule().definition().name(), number);
            var wait = gate.before(attempt);
            if (wait.isPresent()) {
                failures.waitFor(attempt, wait.get());
                return true;
            }
            if (attempt.rule().definition().copies() != null) return copies.run(attempt);
            return end(attempt, units.run(attempt, (evaluation, plan) -> commit.commit(attempt, evaluation, plan)));
        } catch (RuntimeException | Error failed) {
            failures.fail(checkId, number, FailureReasons.of(checkId, failed));
        }
        return true;
    }

    private boolean end(Attempt attempt, UnitOutcome outcome) {
        if (outcome instanceof UnitOutcome.BeyondLimit beyond) failures.awaitApproval(attempt, beyond);
        return outcome != UnitOutcome.Ended.OUTDATED;
    }
}
