package dev.oddsentry.service.checks;

import com.github.kagkarlsson.scheduler.SchedulerClient;
import dev.oddsentry.core.definition.TriggersDefinition.Outcome;
import dev.oddsentry.service.checks.FailureReasons.Failure;
import dev.oddsentry.service.checks.UnitRunner.UnitOutcome.BeyondLimit;
import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.CheckOrigin;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.failures.IncidentKind;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.incidents.Incidents;
import dev.oddsentry.service.rules.CheckState;
import dev.oddsentry.service.triggers.Triggers;
import java.time.Clock;
import java.time.Instant;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Handles a failed attempt: it is retried if the rule has retries left, else the check fails and the owning team is notified. */
@Component
class FailureHandler {
    static final String REPLACED = " A later slot was due before the retry.";

    private final CheckStore store;
    private final DefinitionStore definitions;
    private final Incidents incidents;
    private final Triggers triggers;
    private final SchedulerClient tasks;
    private final Clock clock;

    FailureHandler(
            CheckStore store,
            DefinitionStore definitions,
            Incidents incidents,
            Triggers triggers,
            SchedulerClient tasks,
            Clock clock) {
        this.store = store;
        this.definitions = definitions;
        this.incidents = incidents;
        this.triggers = triggers;
        this.tasks = tasks;
        this.clock = clock;
    }

    @Transactional
    public void fail(CheckId checkId, int number, Failure failure) {
        if (triesAgain(checkId, number, failure)) return;
        var check = store.find(checkId).orElseThrow();
        if (!store.fail(checkId, number, CheckState.FAILED, failure)) return;
        if (failure.timedOut()) store.timedOut(checkId, number);
        triggers.follow(check.getRuleId(), checkId, check.getSlot(), Set.of(Outcome.FAILED));
        var rule = definitions.rule(check.getRuleId()).orElseThrow().definition();
        incidents.failed(
                cause(check.getSourceName(), rule.name(), failure),
                check.getRuleId(),
                failure.kind(),
                failure.reason());
    }

    /** What the failure counts under: failures of one source make one mail. */
    static Incidents.Cause cause(@Nullable String source, String rule, Failure failure) {
        return failure.kind() == FailureKind.SOURCE_UNREACHABLE && source != null
                ? new Incidents.Cause(IncidentKind.SOURCE, source)
                : new Incidents.Cause(IncidentKind.RULE, rule);
    }

    /** @return true: the check waits and will be tried again, or another attempt has it */
    boolean triesAgain(CheckId checkId, int number, Failure failure) {
        var check = store.find(checkId).orElseThrow();
        var checking =
                definitions.rule(check.getRuleId()).orElseThrow().definition().limits();
        boolean again = failure.again()
                && check.getOrigin() != CheckOrigin.ON_DEMAND
                && check.getFailures() < checking.retries();
        if (!again) return false;
        Instant when = clock.instant().plus(checking.retryAfter());
        if (store.retryAt(checkId, number, when, failure)) tasks.schedule(OnDemandChecks.task(checkId, number), when);
        return true;
    }

    /** @param reason why nothing is reported until a person looked */
    @Transactional
    public void awaitApproval(Attempt attempt, BeyondLimit beyond) {
        if (!store.awaitApproval(
                attempt.checkId(),
                attempt.number(),
                beyond.summary().rows(),
                new Failure(FailureKind.SAFETY_LIMITS, beyond.reason() + ". Approve or discard it."))) return;
        var rule = attempt.rule().definition();
        incidents.failed(
                new Incidents.Cause(IncidentKind.AWAITING_APPROVAL, rule.name()),
                attempt.ruleId(),
                FailureKind.SAFETY_LIMITS,
                "The check awaits approval: " + beyond.reason() + ".");
    }

    /** The check waits for something that has not failed. */
    @Transactional
    public void waitFor(Attempt attempt, StartGate.Wait wait) {
        if (store.waitUntil(attempt.checkId(), attempt.number(), wait.until(), wait.what(), wait.reason()))
            tasks.schedule(OnDemandChecks.task(attempt.checkId(), attempt.number()), wait.until());
    }

    /**
     * A later slot takes the place of one that waits, to be tried again or for its source.
     *
     * @param partly whether some of it was done, and it has ended so already
     */
    @Transactional
    public void replaced(RuleCheckRecord waiting, boolean partly) {
        CheckId checkId = waiting.getId();
        int attempt = waiting.getAttempt();
        String reason = String.valueOf(waiting.getReason());
        if (waiting.getWaitingFor() == WaitingFor.SOURCE_OPEN) {
            store.end(checkId, attempt, CheckState.SKIPPED, reason + " A later slot was due first.");
            return;
        }
        var kind = waiting.getFailure() == null ? FailureKind.INTERNAL : waiting.getFailure();
        if (partly || store.fail(checkId, attempt, CheckState.FAILED, new Failure(kind, reason + REPLACED))) {
            var check = store.find(checkId).orElseThrow();
            var rule = definitions.rule(check.getRuleId()).orElseThrow().definition();
            incidents.failed(new Incidents.Cause(IncidentKind.RULE, rule.name()), check.getRuleId(), kind, reason);
        }
    }
}
