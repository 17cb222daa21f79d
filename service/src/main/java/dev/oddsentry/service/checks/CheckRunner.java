package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.TriggersDefinition.WhenEmpty;
import dev.oddsentry.service.checks.CheckStore.NewCheck;
import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.CheckFailureException;
import dev.oddsentry.service.evaluation.CheckOrigin;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.evaluation.Evaluator;
import dev.oddsentry.service.messages.MessageContext;
import dev.oddsentry.service.messages.MessagePlanner;
import dev.oddsentry.service.queries.RunningQuery;
import dev.oddsentry.service.reporting.ReportPlanner;
import java.time.Instant;
import java.util.UUID;
import org.springframework.stereotype.Component;

/**
 * Runs one check from its slot to its messages: {@link CheckStarter} fixes what it is calculated with, {@link Evaluator} reads,
 * evaluates and compares, {@link ReportPlanner} chooses and renders, {@link CheckCommit} writes all of it or nothing. Where the rule has personal
 * copies, {@link PersonalCopies} does these steps for each.
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
    private final CheckStarter beginning;
    private final StartGate waiting;
    private final Evaluator evaluator;
    private final ReportPlanner reportPlanner;
    private final MessagePlanner messagePlanner;
    private final CheckCommit commit;
    private final FailureHandler failing;
    private final RunningChecks running;
    private final PersonalCopies copies;
    private final CheckMetrics metrics;

    CheckRunner(
            CheckStore store,
            CheckStarter beginning,
            StartGate waiting,
            Evaluator evaluator,
            ReportPlanner reportPlanner,
            MessagePlanner messagePlanner,
            CheckCommit commit,
            FailureHandler failing,
            RunningChecks running,
            PersonalCopies copies,
            CheckMetrics metrics) {
        this.store = store;
        this.beginning = beginning;
        this.waiting = waiting;
        this.evaluator = evaluator;
        this.reportPlanner = reportPlanner;
        this.messagePlanner = messagePlanner;
        this.commit = commit;
        this.failing = failing;
        this.running = running;
        this.copies = copies;
        this.metrics = metrics;
    }

    /** @return false: another check of this rule is running; ask again */
    public boolean runScheduled(UUID ruleId, Instant slot, int standsFor) {
        var leftBehind = store.running(ruleId);
        if (leftBehind.isPresent() && isReplaceable(leftBehind.get())) {
            var waiting = leftBehind.get();
            failing.replaced(waiting, copies.replaced(waiting));
        } else if (leftBehind.isPresent() && leftBehind.get().getOrigin() == CheckOrigin.SCHEDULED) {
            // A rule's slots are one task's, so the node that began this one has died; its slot comes before any later
            // one.
            run(leftBehind.get().getId());
            return false;
        }
        store.insert(new NewCheck(UUID.randomUUID(), ruleId, slot, CheckOrigin.SCHEDULED, standsFor, null, null));
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
    public void skip(UUID ruleId, Instant slot, int slots) {
        UUID id = UUID.randomUUID();
        if (!store.insert(new NewCheck(id, ruleId, slot, CheckOrigin.SCHEDULED, slots, null, null))) return;
        store.end(
                id,
                0,
                CheckState.SKIPPED,
                (slots == 1 ? "The slot was" : slots + " slots were")
                        + " missed while the service was down; the rule skips missed slots.");
    }

    /** Runs a check whose state is running; a check that has ended is left as it is. */
    void run(UUID checkId) {
        try (var log = new CheckLog(checkId)) {
            attempts(checkId);
            store.find(checkId).ifPresent(check -> {
                log.left(check);
                if (check.getState() != CheckState.RUNNING) metrics.ended(check.getState());
            });
        }
    }

    private void attempts(UUID checkId) {
        for (int i = 0; i < MOST_ATTEMPTS_WHEN_STALE; i++) {
            var taken = store.takeUp(checkId, i > 0);
            if (taken.isEmpty()) return;
            if (taken.get().interruptions() > MOST_INTERRUPTIONS) {
                failing.fail(
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

    /** @return false: something changed under it, and it wrote nothing */
    private boolean attempt(UUID checkId, int number) {
        try {
            var begun = beginning.begin(checkId, number);
            if (begun.isEmpty()) return true;
            var attempt = begun.get();
            CheckLog.began(attempt.rule().definition().name(), number);
            var wait = waiting.before(attempt);
            if (wait.isPresent()) {
                failing.waitFor(attempt, wait.get());
                return true;
            }
            if (attempt.rule().definition().copies() != null) return copies.run(attempt);
            var query = new RunningQuery(attempt.timeLimit());
            var evaluation = running.watch(checkId, number, query, each -> evaluator.evaluate(attempt, each));
            try (evaluation) {
                return finish(attempt, evaluation);
            }
        } catch (RuntimeException | Error failed) {
            failing.fail(checkId, number, FailureReasons.of(checkId, failed));
        }
        return true;
    }

    /** @return false: something changed under it, and it wrote nothing */
    private boolean finish(Attempt attempt, Evaluation evaluation) {
        refuseEmpty(attempt, evaluation);
        var brake = SafetyLimit.on(attempt, evaluation);
        if (brake.isPresent()) {
            failing.keepBack(attempt, evaluation, brake.get());
            return true;
        }
        return commit.commit(
                attempt,
                evaluation,
                messagePlanner.withMessages(
                        MessageContext.of(attempt), evaluation, reportPlanner.choose(evaluation, attempt.scope())));
    }

    static void refuseEmpty(Attempt attempt, Evaluation evaluation) {
        boolean fails = attempt.rule().definition().triggers().whenEmpty() == WhenEmpty.FAIL;
        if (fails && evaluation.reading().rows() == 0)
            throw new CheckFailureException(
                    "The result had no rows, which is a failure for this rule (when_empty: fail).", null);
    }
}
