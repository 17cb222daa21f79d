package dev.oddsentry.service.checks;

import static dev.oddsentry.service.db.generated.Tables.RULE;

import dev.oddsentry.core.definition.TriggersDefinition.Outcome;
import dev.oddsentry.core.memory.PendingEffect.EditEffect;
import dev.oddsentry.core.memory.PendingEffect.ReportChoice;
import dev.oddsentry.service.checks.FailureReasons.Failure;
import dev.oddsentry.service.checks.PersonalCopies.Undone;
import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.failures.IncidentKind;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.incidents.Incidents;
import dev.oddsentry.service.memory.MemoryWriter;
import dev.oddsentry.service.memory.Scope;
import dev.oddsentry.service.rules.CheckState;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.triggers.Triggers;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Ends a check after its personal copies: successful, partly failed, awaiting approval, or to be retried for those that failed. */
@Component
class CopiesFinisher {
    private static final int MOST_NAMED = 3;

    private final DSLContext db;
    private final CheckStore checks;
    private final CopyStore copies;
    private final CheckCommit commit;
    private final FailureHandler failing;
    private final MemoryWriter memory;
    private final Triggers triggers;
    private final Incidents incidents;

    CopiesFinisher(
            DSLContext db,
            CheckStore checks,
            CopyStore copies,
            CheckCommit commit,
            FailureHandler failing,
            MemoryWriter memory,
            Triggers triggers,
            Incidents incidents) {
        this.db = db;
        this.checks = checks;
        this.copies = copies;
        this.commit = commit;
        this.failing = failing;
        this.memory = memory;
        this.triggers = triggers;
        this.incidents = incidents;
    }

    /**
     * @param keys of all copies that there are now
     * @return false: something changed since, and the check goes on with those that are not done
     */
    @Transactional
    public boolean of(Attempt attempt, Set<String> keys, List<Undone> undone) {
        var lock = checks.lockRule(attempt.ruleId());
        if (lock.state() != RuleState.ACTIVE || lock.memoryEpoch() != attempt.memoryEpoch()) return false;
        if (!checks.lockRunning(attempt.checkId(), attempt.number())) return true;
        undone.forEach(each -> copies.notGood(
                attempt,
                each.copy(),
                each.failure() == null ? CheckState.AWAITING_APPROVAL : CheckState.FAILED,
                each.reason(),
                each.counts()));
        var failed = undone.stream().filter(each -> each.failure() != null).toList();
        var awaitingApproval =
                undone.stream().filter(each -> each.failure() == null).toList();
        if (copies.done(attempt.checkId()).isEmpty() && awaitingApproval.isEmpty())
            failing.fail(attempt.checkId(), attempt.number(), together(failed, keys.size()));
        else if (failed.isEmpty() && awaitingApproval.isEmpty()) good(attempt, keys);
        else if (failed.isEmpty()
                || !failing.triesAgain(attempt.checkId(), attempt.number(), together(failed, keys.size()))) {
            if (awaitingApproval.isEmpty()) partly(attempt, keys, failed);
            else awaitApproval(attempt, keys.size(), awaitingApproval, failed);
        }
        return true;
    }

    private void good(Attempt attempt, Set<String> keys) {
        var counts = copies.together(attempt.checkId());
        checks.end(attempt.checkId(), attempt.number(), counts.state(), null);
        commit.write(attempt.checkId(), counts);
        commit.moveOn(attempt, counts, keys);
        copies.keepPending(attempt.ruleId(), unevaluatedSince(attempt, keys), attempt.pending());
    }

    /** The copies to which this check did not do what it owed to what a person did: they were done before that, or rest. */
    private Set<String> unevaluatedSince(Attempt attempt, Set<String> keys) {
        var owe = new HashSet<>(copies.priorChecks(attempt.ruleId()).keySet());
        owe.removeAll(keys);
        owe.addAll(copies.doneBefore(attempt.checkId(), attempt.memoryEpoch()));
        return owe;
    }

    private void partly(Attempt attempt, Set<String> keys, List<Undone> failed) {
        var counts = copies.together(attempt.checkId());
        var failure = together(failed, keys.size());
        checks.fail(attempt.checkId(), attempt.number(), CheckState.PARTLY_FAILED, failure);
        commit.write(attempt.checkId(), counts);
        if (failure.timedOut()) checks.timedOut(attempt.checkId(), attempt.number());
        commit.settle(attempt, keys);
        var owe = unevaluatedSince(attempt, keys);
        failed.forEach(each -> owe.add(each.copy().key()));
        copies.keepPending(attempt.ruleId(), owe, attempt.pending());
        startFollowers(attempt.ruleId(), attempt.checkId(), counts);
        incidents.failed(
                FailureHandler.cause(
                        attempt.source().name(), attempt.rule().definition().name(), failure),
                attempt.ruleId(),
                failure.kind(),
                failure.reason());
    }

    private void startFollowers(RuleId ruleId, CheckId checkId, CheckSummary counts) {
        var outcomes = EnumSet.of(Outcome.FAILED);
        if (counts.state() == CheckState.FIRED) outcomes.add(Outcome.FIRED);
        triggers.follow(ruleId, checkId, checks.find(checkId).orElseThrow().getSlot(), outcomes);
    }

    /** The slot is not done: approval continues it for the copies that await approval. */
    private void awaitApproval(Attempt attempt, int of, List<Undone> awaitingApproval, List<Undone> failed) {
        String reason = named(awaitingApproval, of, "awaiting approval")
                + (failed.isEmpty() ? "" : "; " + named(failed, of, "failed"))
                + ". Approve or discard it.";
        checks.fail(
                attempt.checkId(),
                attempt.number(),
                CheckState.AWAITING_APPROVAL,
                new Failure(FailureKind.SAFETY_LIMITS, reason));
        commit.write(attempt.checkId(), copies.together(attempt.checkId()));
        String rule = attempt.rule().definition().name();
        incidents.failed(
                new Incidents.Cause(IncidentKind.AWAITING_APPROVAL, rule),
                attempt.ruleId(),
                FailureKind.SAFETY_LIMITS,
                "The check awaits approval: " + reason);
    }

    /**
     * A later slot takes the place of a check that waits to try the copies again that failed.
     *
     * @return false: none of its copies is done, or it runs no more
     */
    @Transactional
    public boolean replaced(RuleCheckRecord waiting, String reason) {
        CheckId checkId = waiting.getId();
        RuleId ruleId = waiting.getRuleId();
        if (copies.done(checkId).isEmpty()) return false;
        var lock = checks.lockRule(ruleId);
        var kind = waiting.getFailure() == null ? FailureKind.PERSONAL_COPIES : waiting.getFailure();
        var failure = new Failure(kind, reason);
        if (!checks.fail(checkId, waiting.getAttempt(), CheckState.PARTLY_FAILED, failure)) return false;
        var counts = copies.together(checkId);
        commit.write(checkId, counts);
        startFollowers(ruleId, checkId, counts);
        if (lock.pending().isNone()) return true;
        // Those that are done have paid what was owed; the later slot must not ask it of them again.
        var owe = new HashSet<>(copies.priorChecks(ruleId).keySet());
        owe.removeAll(copies.done(checkId));
        owe.addAll(copies.doneBefore(checkId, lock.memoryEpoch()));
        if (lock.pending().startsOver())
            memory.endOthers(
                    new MemoryWriter.Writing(Scope.of(ruleId), checkId, waiting.getSlot()),
                    List.copyOf(copies.priorChecks(ruleId).keySet()));
        copies.keepPending(ruleId, owe, lock.pending());
        db.update(RULE)
                .set(RULE.PENDING_EDIT, EditEffect.NONE)
                .set(RULE.PENDING_REPORT, ReportChoice.NONE)
                .set(RULE.MEMORY_EPOCH, RULE.MEMORY_EPOCH.plus(1))
                .where(RULE.ID.eq(ruleId))
                .execute();
        return true;
    }

    private static Failure together(List<Undone> failed, int of) {
        var failures = failed.stream()
                .map(each -> Objects.requireNonNull(each.failure()))
                .toList();
        var kinds = failures.stream().map(Failure::kind).distinct().toList();
        return new Failure(
                kinds.size() == 1 ? kinds.getFirst() : FailureKind.PERSONAL_COPIES,
                named(failed, of, "failed") + ".",
                failures.stream().anyMatch(Failure::timedOut),
                failures.stream().anyMatch(Failure::again));
    }

    private static String named(List<Undone> some, int of, String went) {
        String first = some.stream()
                .limit(MOST_NAMED)
                .map(each -> each.copy().key() + ": " + each.reason().replaceAll("\\.$", ""))
                .collect(Collectors.joining("; "));
        String more = some.size() > MOST_NAMED ? "; and " + (some.size() - MOST_NAMED) + " more" : "";
        return some.size() + " of " + of + " personal copies " + went + " (" + first + more + ")";
    }
}
