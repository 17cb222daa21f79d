package dev.oddsentry.service.checks;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.DEFINITION_REVISION;
import static dev.oddsentry.service.db.generated.Tables.RULE;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;
import static org.jooq.Records.mapping;
import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.noCondition;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.when;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.schedule.TimeLimit;
import dev.oddsentry.service.checks.FailureReasons.Failure;
import dev.oddsentry.service.config.Node;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.PagePlace;
import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import dev.oddsentry.service.db.generated.tables.records.RuleTriggerRecord;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.CheckOrigin;
import dev.oddsentry.service.evaluation.PriorChecks;
import dev.oddsentry.service.evaluation.ThresholdsUsed;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.rules.CheckState;
import dev.oddsentry.service.rules.RuleState;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The rows of checks. Every move is a compare-and-set from running, and its row count is read. */
@Component
public class CheckStore {
    private final DSLContext db;
    private final Clock clock;
    private final Node node;

    CheckStore(DSLContext db, Clock clock, Node node) {
        this.db = db;
        this.clock = clock;
        this.node = node;
    }

    /** @param requestKey of the caller; the same key finds the same check */
    record NewCheck(
            CheckId id,
            RuleId ruleId,
            Instant slot,
            CheckOrigin origin,
            int slotsCovered,
            @Nullable String requestKey,
            @Nullable UUID requestedBy) {}

    /** @return false: the rule has a check of that slot or key, or one that runs */
    boolean insert(NewCheck check) {
        return db.insertInto(RULE_CHECK)
                        .set(RULE_CHECK.ID, check.id())
                        .set(RULE_CHECK.RULE_ID, check.ruleId())
                        .set(RULE_CHECK.SLOT, check.slot())
                        .set(RULE_CHECK.ORIGIN, check.origin())
                        .set(RULE_CHECK.STATE, CheckState.RUNNING)
                        .set(RULE_CHECK.ATTEMPT, 0)
                        .set(RULE_CHECK.SLOTS_COVERED, check.slotsCovered())
                        .set(RULE_CHECK.NODE, node.name())
                        .set(RULE_CHECK.REQUEST_KEY, check.requestKey())
                        .set(RULE_CHECK.REQUESTED_BY, check.requestedBy())
                        .set(RULE_CHECK.STARTED_AT, clock.instant())
                        .onConflictDoNothing()
                        .execute()
                == 1;
    }

    /** The same for a triggered check. */
    boolean insert(NewCheck check, RuleTriggerRecord trigger) {
        if (!insert(check)) return false;
        db.update(RULE_CHECK)
                .set(RULE_CHECK.EVENT, trigger.getEvent())
                .set(RULE_CHECK.EVENT_VALUES, trigger.getEventValues())
                .set(RULE_CHECK.PARENT_ID, trigger.getParentId())
                .where(RULE_CHECK.ID.eq(check.id()))
                .execute();
        return true;
    }

    /** How long the last good checks took. */
    List<Duration> lastGood(RuleId ruleId) {
        return db.select(RULE_CHECK.TOOK_MS)
                .from(RULE_CHECK)
                .where(
                        RULE_CHECK.RULE_ID.eq(ruleId),
                        RULE_CHECK.STATE.in(CheckState.GOOD),
                        RULE_CHECK.TOOK_MS.isNotNull())
                .orderBy(RULE_CHECK.SLOT.desc())
                .limit(TimeLimit.LOOKED_AT)
                .fetch(row -> Duration.ofMillis(row.value1()));
    }

    int timeOutsSinceGood(RuleId ruleId) {
        Instant lastGood = db.select(DSL.max(RULE_CHECK.SLOT))
                .from(RULE_CHECK)
                .where(RULE_CHECK.RULE_ID.eq(ruleId), RULE_CHECK.STATE.in(CheckState.GOOD))
                .fetchOne(0, Instant.class);
        return db.fetchCount(
                RULE_CHECK,
                RULE_CHECK
                        .RULE_ID
                        .eq(ruleId)
                        .and(RULE_CHECK.TIMED_OUT.isTrue())
                        .and(lastGood == null ? DSL.noCondition() : RULE_CHECK.SLOT.gt(lastGood)));
    }

    /** @return false: this attempt is no longer the running one */
    boolean awaitApproval(CheckId checkId, int attempt, long rows, Failure beyondLimits) {
        db.update(RULE_CHECK)
                .set(RULE_CHECK.ROWS_READ, rows)
                .where(RULE_CHECK.ID.eq(checkId), RULE_CHECK.ATTEMPT.eq(attempt))
                .execute();
        return fail(checkId, attempt, CheckState.AWAITING_APPROVAL, beyondLimits);
    }

    /** The attempt failed and the check waits to be tried again. @return false: it is no longer the running one */
    boolean retryAt(CheckId checkId, int attempt, Instant when, Failure failure) {
        return db.update(RULE_CHECK)
                        .set(RULE_CHECK.FAILURES, RULE_CHECK.FAILURES.plus(1))
                        .set(RULE_CHECK.RETRY_AT, when)
                        .set(RULE_CHECK.FAILURE, failure.kind())
                        .set(RULE_CHECK.REASON, failure.reason())
                        .set(RULE_CHECK.TIMED_OUT, failure.timedOut())
                        .where(isRunning(checkId, attempt))
                        .execute()
                == 1;
    }

    /** The check waits, without having failed. @return false: this attempt is no longer the running one */
    boolean waitUntil(CheckId checkId, int attempt, Instant when, WaitingFor what, String reason) {
        return db.update(RULE_CHECK)
                        .set(RULE_CHECK.RETRY_AT, when)
                        .set(RULE_CHECK.WAITING_FOR, what)
                        .set(RULE_CHECK.REASON, reason)
                        .where(isRunning(checkId, attempt))
                        .execute()
                == 1;
    }

    boolean isWaiting(CheckId checkId) {
        return db.fetchExists(RULE_CHECK, RULE_CHECK.ID.eq(checkId).and(RULE_CHECK.RETRY_AT.isNotNull()));
    }

    private static Condition isRunning(CheckId checkId, int attempt) {
        return RULE_CHECK
                .ID
                .eq(checkId)
                .and(RULE_CHECK.STATE.eq(CheckState.RUNNING))
                .and(RULE_CHECK.ATTEMPT.eq(attempt));
    }

    /** Nobody ends the check before this transaction does. @return false: this attempt is no longer the running one */
    boolean lockRunning(CheckId checkId, int attempt) {
        return db.selectFrom(RULE_CHECK)
                .where(isRunning(checkId, attempt))
                .forUpdate()
                .fetchOptional()
                .isPresent();
    }

    /** With which thresholds it was evaluated, and when its source was read; of personal copies the first counts. */
    void read(Attempt attempt, Instant at) {
        db.update(RULE_CHECK)
                .set(RULE_CHECK.READ_AT, DSL.coalesce(RULE_CHECK.READ_AT, DSL.val(at, RULE_CHECK.READ_AT)))
                .set(RULE_CHECK.THRESHOLDS, Json.write(ThresholdsUsed.of(attempt)))
                .where(RULE_CHECK.ID.eq(attempt.checkId()))
                .execute();
    }

    void timedOut(CheckId checkId, int attempt) {
        db.update(RULE_CHECK)
                .set(RULE_CHECK.TIMED_OUT, true)
                .where(RULE_CHECK.ID.eq(checkId), RULE_CHECK.ATTEMPT.eq(attempt))
                .execute();
    }

    /** Ends a running check whichever attempt it is at. @return false: it runs no more */
    boolean stop(CheckId checkId, String reason) {
        return db.update(RULE_CHECK)
                        .set(RULE_CHECK.STATE, CheckState.STOPPED)
                        .set(RULE_CHECK.REASON, reason)
                        .set(RULE_CHECK.FINISHED_AT, clock.instant())
                        .setNull(RULE_CHECK.RETRY_AT)
                        .where(RULE_CHECK.ID.eq(checkId), RULE_CHECK.STATE.eq(CheckState.RUNNING))
                        .execute()
                == 1;
    }

    /** @return false if it no longer awaits approval */
    boolean release(CheckId checkId, UUID by) {
        return db.update(RULE_CHECK)
                        .set(RULE_CHECK.STATE, CheckState.RUNNING)
                        .set(RULE_CHECK.APPROVED_BY, by)
                        .setNull(RULE_CHECK.FAILURE)
                        .setNull(RULE_CHECK.REASON)
                        .setNull(RULE_CHECK.FINISHED_AT)
                        .where(RULE_CHECK.ID.eq(checkId), RULE_CHECK.STATE.eq(CheckState.AWAITING_APPROVAL))
                        .execute()
                == 1;
    }

    /** @return false if it no longer awaits approval */
    boolean discard(CheckId checkId, String reason) {
        return db.update(RULE_CHECK)
                        .set(RULE_CHECK.STATE, CheckState.STOPPED)
                        .set(RULE_CHECK.REASON, reason)
                        .where(RULE_CHECK.ID.eq(checkId), RULE_CHECK.STATE.eq(CheckState.AWAITING_APPROVAL))
                        .execute()
                == 1;
    }

    /**
     * Starts the next attempt at a running check, which makes every earlier attempt stale. Empty if it runs no more.
     *
     * @param again {@code true} if the caller itself ended the attempt before
     */
    Optional<TakenUp> takeUp(CheckId checkId, boolean again) {
        return db.update(RULE_CHECK)
                .set(RULE_CHECK.ATTEMPT, RULE_CHECK.ATTEMPT.plus(1))
                // An attempt that failed or waits has recorded it; one that has not was cut off by the end of its node.
                .set(
                        RULE_CHECK.INTERRUPTIONS,
                        when(
                                        DSL.condition(!again)
                                                .and(RULE_CHECK.ATTEMPT.gt(0))
                                                .and(RULE_CHECK.RETRY_AT.isNull())
                                                .and(RULE_CHECK.WAITING_FOR.isNull()),
                                        RULE_CHECK.INTERRUPTIONS.plus((short) 1))
                                .otherwise(RULE_CHECK.INTERRUPTIONS))
                .setNull(RULE_CHECK.RETRY_AT)
                .setNull(RULE_CHECK.WAITING_FOR)
                .setNull(RULE_CHECK.ROWS_SO_FAR)
                .set(RULE_CHECK.NODE, node.name())
                .where(RULE_CHECK.ID.eq(checkId), RULE_CHECK.STATE.eq(CheckState.RUNNING))
                .returningResult(RULE_CHECK.ATTEMPT, RULE_CHECK.INTERRUPTIONS)
                .fetchOptional(mapping(TakenUp::new));
    }

    /** @param interruptions attempts that were cut off by the end of the node that ran them */
    record TakenUp(int attempt, short interruptions) {}

    Optional<RuleCheckRecord> ofSlot(RuleId ruleId, Instant slot) {
        return db.selectFrom(RULE_CHECK)
                .where(RULE_CHECK.RULE_ID.eq(ruleId), RULE_CHECK.SLOT.eq(slot))
                .fetchOptional();
    }

    Optional<RuleCheckRecord> ofKey(RuleId ruleId, String requestKey) {
        return db.selectFrom(RULE_CHECK)
                .where(RULE_CHECK.RULE_ID.eq(ruleId), RULE_CHECK.REQUEST_KEY.eq(requestKey))
                .fetchOptional();
    }

    /** The last check, if it was good, ended after that instant, and nothing that it depends on was saved since. */
    Optional<RuleCheckRecord> goodSince(RuleId ruleId, Instant since) {
        return latest(ruleId, 1).stream()
                .filter(check -> CheckState.GOOD.contains(check.getState()))
                .filter(check ->
                        check.getFinishedAt() != null && check.getFinishedAt().isAfter(since))
                .filter(this::isOfPresentRevisions)
                .findFirst();
    }

    private boolean isOfPresentRevisions(RuleCheckRecord check) {
        var query = DEFINITION.as("query");
        return db.fetchExists(select().from(DEFINITION)
                .join(DEFINITION_REVISION)
                .on(
                        DEFINITION_REVISION.DEFINITION_ID.eq(DEFINITION.ID),
                        DEFINITION_REVISION.REVISION.eq(DEFINITION.REVISION))
                .join(query)
                .on(
                        query.KIND.eq(Definition.Kind.QUERY),
                        query.NAME.eq(field("{0} ->> 'query'", String.class, DEFINITION_REVISION.DOCUMENT)))
                .where(
                        DEFINITION.ID.eq(check.getRuleId().value()),
                        DEFINITION.REVISION.eq(check.getRuleRevision()),
                        query.REVISION.eq(check.getQueryRevision())));
    }

    Optional<RuleCheckRecord> running(RuleId ruleId) {
        return db.selectFrom(RULE_CHECK)
                .where(RULE_CHECK.RULE_ID.eq(ruleId), RULE_CHECK.STATE.eq(CheckState.RUNNING))
                .fetchOptional();
    }

    public Optional<RuleCheckRecord> find(CheckId id) {
        return db.selectFrom(RULE_CHECK).where(RULE_CHECK.ID.eq(id)).fetchOptional();
    }

    public List<RuleCheckRecord> latest(RuleId ruleId, int limit) {
        return latest(ruleId, null, limit);
    }

    /** @param after the check behind which the list begins; {@code null} to begin with the newest */
    public List<RuleCheckRecord> latest(RuleId ruleId, @Nullable PagePlace after, int limit) {
        return db.selectFrom(RULE_CHECK)
                .where(
                        RULE_CHECK.RULE_ID.eq(ruleId),
                        after == null ? noCondition() : after.behind(RULE_CHECK.SLOT, RULE_CHECK.ID))
                .orderBy(RULE_CHECK.SLOT.desc(), RULE_CHECK.ID)
                .limit(limit)
                .fetch();
    }

    /** @return false: this attempt is no longer the running one, and nothing was written */
    boolean fail(CheckId checkId, int attempt, CheckState outcome, Failure failure) {
        return end(checkId, attempt, outcome, failure.kind(), failure.reason());
    }

    /** @param reason why it did not succeed, though nothing failed */
    boolean end(CheckId checkId, int attempt, CheckState outcome, @Nullable String reason) {
        return end(checkId, attempt, outcome, null, reason);
    }

    private boolean end(
            CheckId checkId, int attempt, CheckState outcome, @Nullable FailureKind failure, @Nullable String reason) {
        return db.update(RULE_CHECK)
                        .set(RULE_CHECK.STATE, outcome)
                        .set(RULE_CHECK.FAILURE, failure)
                        .set(RULE_CHECK.REASON, reason)
                        .set(RULE_CHECK.FINISHED_AT, clock.instant())
                        .setNull(RULE_CHECK.RETRY_AT)
                        .where(isRunning(checkId, attempt))
                        .execute()
                == 1;
    }

    /** The later of now and a millisecond after the rule's last slot, so that slots only move forward. */
    Instant onDemandSlot(RuleId ruleId) {
        return slotAfterLast(ruleId, clock.instant());
    }

    /** The later of {@code now} and a millisecond after the rule's last slot. */
    Instant slotAfterLast(RuleId ruleId, Instant now) {
        Instant last = db.select(DSL.max(RULE_CHECK.SLOT))
                .from(RULE_CHECK)
                .where(RULE_CHECK.RULE_ID.eq(ruleId))
                .fetchOne(0, Instant.class);
        return last == null || now.isAfter(last) ? now : last.plusMillis(1);
    }

    /** The state of the whole rule before its next check; a personal copy that appears then is a newcomer if the rule was ever checked. */
    public PriorChecks ofRule(RuleId ruleId) {
        return db.select(RULE.GOOD_SLOTS, RULE.LAST_GOOD_SLOT, RULE.PENDING_EDIT, RULE.PENDING_REPORT)
                .from(RULE)
                .where(RULE.ID.eq(ruleId))
                .fetchSingle(row -> new PriorChecks(
                        row.value2() != null,
                        row.value1(),
                        row.value2(),
                        new PendingEffect(row.value3(), row.value4())));
    }

    /** The rule's row, locked until the transaction ends. */
    RuleLock lockRule(RuleId ruleId) {
        return db.select(
                        RULE.STATE,
                        RULE.MEMORY_EPOCH,
                        RULE.LAST_GOOD_SLOT,
                        RULE.GOOD_SLOTS,
                        RULE.PENDING_EDIT,
                        RULE.PENDING_REPORT)
                .from(RULE)
                .where(RULE.ID.eq(ruleId))
                .forUpdate()
                .fetchSingle(row -> new RuleLock(
                        row.value1(),
                        row.value2(),
                        row.value3(),
                        row.value4(),
                        new PendingEffect(row.value5(), row.value6())));
    }

    record RuleLock(
            RuleState state, long memoryEpoch, @Nullable Instant lastGoodSlot, long goodSlots, PendingEffect pending) {}
}
