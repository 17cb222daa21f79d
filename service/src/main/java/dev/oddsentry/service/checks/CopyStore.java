package dev.oddsentry.service.checks;

import static dev.oddsentry.service.db.generated.Tables.CHECK_COPY;
import static dev.oddsentry.service.db.generated.Tables.RULE_COPY;
import static org.jooq.impl.DSL.max;
import static org.jooq.impl.DSL.sum;

import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.memory.PendingEffect.EditEffect;
import dev.oddsentry.core.memory.PendingEffect.ReportChoice;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.CheckCopyRecord;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.PartCount;
import dev.oddsentry.service.evaluation.PersonalCopy;
import dev.oddsentry.service.evaluation.PriorChecks;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.rules.CheckState;
import java.time.Clock;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;

/** The personal copies of rules, and how each of them went in a check. */
@Component
public class CopyStore {
    private final DSLContext db;
    private final Clock clock;

    CopyStore(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /** Prior checks of all copies of a rule, by key; those that were never met before are noted down. */
    @Transactional
    public Map<String, PriorChecks> meet(RuleId ruleId, Collection<String> keys, boolean asNewcomers) {
        var known = priorChecks(ruleId);
        var unknown = new HashSet<>(keys);
        unknown.removeAll(known.keySet());
        for (String key : unknown)
            db.insertInto(RULE_COPY)
                    .set(RULE_COPY.RULE_ID, ruleId)
                    .set(RULE_COPY.COPY_KEY, key)
                    .set(RULE_COPY.NEWCOMER, asNewcomers)
                    .onConflictDoNothing()
                    .execute();
        return unknown.isEmpty() ? known : priorChecks(ruleId);
    }

    Map<String, PriorChecks> priorChecks(RuleId ruleId) {
        return db.select(
                        RULE_COPY.COPY_KEY,
                        RULE_COPY.NEWCOMER,
                        RULE_COPY.GOOD_SLOTS,
                        RULE_COPY.LAST_GOOD_SLOT,
                        RULE_COPY.PENDING_EDIT,
                        RULE_COPY.PENDING_REPORT)
                .from(RULE_COPY)
                .where(RULE_COPY.RULE_ID.eq(ruleId))
                .fetchMap(
                        row -> row.value1(),
                        row -> new PriorChecks(
                                row.value2(),
                                row.value3(),
                                row.value4(),
                                new PendingEffect(row.value5(), row.value6())));
    }

    /** Those that the check is done with, whichever attempt did them. */
    Set<String> done(CheckId checkId) {
        return db.select(CHECK_COPY.COPY_KEY)
                .from(CHECK_COPY)
                .where(CHECK_COPY.CHECK_ID.eq(checkId), CHECK_COPY.STATE.in(CheckState.GOOD))
                .fetchSet(CHECK_COPY.COPY_KEY);
    }

    /** The copy's slot is done. */
    void good(Attempt attempt, PersonalCopy copy, CheckSummary counts) {
        put(row(attempt, copy, counts));
        db.update(RULE_COPY)
                .set(RULE_COPY.LAST_GOOD_SLOT, attempt.slot())
                .set(RULE_COPY.GOOD_SLOTS, RULE_COPY.GOOD_SLOTS.plus(attempt.isCounted() ? 1 : 0))
                .set(RULE_COPY.PENDING_EDIT, EditEffect.NONE)
                .set(RULE_COPY.PENDING_REPORT, ReportChoice.NONE)
                .where(RULE_COPY.RULE_ID.eq(attempt.ruleId()), RULE_COPY.COPY_KEY.eq(copy.key()))
                .execute();
    }

    /** Records that the copy failed or awaits approval, with its counts if it got that far. */
    void notGood(Attempt attempt, PersonalCopy copy, CheckState state, String reason, @Nullable CheckSummary counts) {
        var row = counts == null ? bare(attempt, copy) : row(attempt, copy, counts);
        row.setState(state);
        row.setReason(reason);
        put(row);
    }

    private CheckCopyRecord bare(Attempt attempt, PersonalCopy copy) {
        var row = new CheckCopyRecord();
        row.setCheckId(attempt.checkId());
        row.setCopyKey(copy.key());
        row.setAttempt(attempt.number());
        row.setMemoryEpoch(attempt.memoryEpoch());
        row.setAddresses(copy.to().toArray(String[]::new));
        row.setFinishedAt(clock.instant());
        return row;
    }

    private CheckCopyRecord row(Attempt attempt, PersonalCopy copy, CheckSummary counts) {
        var row = bare(attempt, copy);
        row.setState(counts.state());
        row.setRowsRead(counts.rows());
        row.setExceptions(counts.exceptions());
        row.setUnknownRows(counts.unknownRows());
        row.setUnevaluated(counts.unevaluated());
        row.setOpened(counts.opened());
        row.setCleared(counts.cleared());
        row.setUpdates(counts.news());
        row.setMessages(counts.messages());
        row.setTookMs(counts.tookMillis());
        row.setParts(Json.write(counts.parts()));
        return row;
    }

    private void put(CheckCopyRecord row) {
        db.insertInto(CHECK_COPY)
                .set(row)
                .onConflict(CHECK_COPY.CHECK_ID, CHECK_COPY.COPY_KEY)
                .doUpdate()
                .setAllToExcluded()
                .where(CHECK_COPY.STATE.notIn(CheckState.GOOD))
                .execute();
    }

    /** Those that were done while the memory was at another epoch than this, so before what a person did since. */
    Set<String> doneBefore(CheckId checkId, long epoch) {
        return db.select(CHECK_COPY.COPY_KEY)
                .from(CHECK_COPY)
                .where(
                        CHECK_COPY.CHECK_ID.eq(checkId),
                        CHECK_COPY.STATE.in(CheckState.GOOD),
                        CHECK_COPY.MEMORY_EPOCH.ne(epoch))
                .fetchSet(CHECK_COPY.COPY_KEY);
    }

    /** What the copies of a check came to together; its state is the most that one of them had to say. */
    CheckSummary together(CheckId checkId) {
        var row = db.select(
                        sum(CHECK_COPY.ROWS_READ),
                        sum(CHECK_COPY.EXCEPTIONS),
                        sum(CHECK_COPY.UNKNOWN_ROWS),
                        sum(CHECK_COPY.UNEVALUATED),
                        sum(CHECK_COPY.OPENED),
                        sum(CHECK_COPY.CLEARED),
                        sum(CHECK_COPY.UPDATES),
                        sum(CHECK_COPY.MESSAGES),
                        max(CHECK_COPY.TOOK_MS))
                .from(CHECK_COPY)
                .where(CHECK_COPY.CHECK_ID.eq(checkId), CHECK_COPY.STATE.in(CheckState.GOOD))
                .fetchSingle()
                .into(CheckSummary.Sums.class);
        var parts = db.select(CHECK_COPY.PARTS)
                .from(CHECK_COPY)
                .where(
                        CHECK_COPY.CHECK_ID.eq(checkId),
                        CHECK_COPY.STATE.in(CheckState.GOOD),
                        CHECK_COPY.PARTS.isNotNull())
                .orderBy(CHECK_COPY.COPY_KEY)
                .fetch(each -> Json.read(each.value1(), new TypeReference<List<PartCount>>() {}));
        return row.counts(PartCount.sum(parts));
    }

    /** The copies of a check by their key. */
    public List<CheckCopyRecord> of(CheckId checkId) {
        return db.selectFrom(CHECK_COPY)
                .where(CHECK_COPY.CHECK_ID.eq(checkId))
                .orderBy(CHECK_COPY.COPY_KEY)
                .fetch();
    }

    /**
     * What a person did since the check before still counts for these copies at their next check: they were not evaluated under it, since
     * they failed or were done before it.
     */
    void keepPending(RuleId ruleId, Collection<String> keys, PendingEffect owed) {
        if (owed.equals(PendingEffect.NONE) || keys.isEmpty()) return;
        priorChecks(ruleId).forEach((key, prior) -> {
            if (!keys.contains(key)) return;
            var both = prior.pending().and(owed);
            db.update(RULE_COPY)
                    .set(RULE_COPY.PENDING_EDIT, both.edit())
                    .set(RULE_COPY.PENDING_REPORT, both.report())
                    .where(RULE_COPY.RULE_ID.eq(ruleId), RULE_COPY.COPY_KEY.eq(key))
                    .execute();
        });
    }
}
