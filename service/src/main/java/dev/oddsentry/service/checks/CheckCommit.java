package dev.oddsentry.service.checks;

import static dev.oddsentry.service.db.generated.Tables.RULE;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;

import dev.oddsentry.core.definition.TriggersDefinition.WhenEmpty;
import dev.oddsentry.core.memory.PendingEffect.EditEffect;
import dev.oddsentry.core.memory.PendingEffect.ReportChoice;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.evaluation.UnevaluatedGroup;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.incidents.Incidents;
import dev.oddsentry.service.memory.MemoryWriter;
import dev.oddsentry.service.reporting.ReportPlan;
import dev.oddsentry.service.triggers.Triggers;
import java.time.Clock;
import java.util.List;
import java.util.Set;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/**
 * Last step: one transaction that writes memory, the message with its delivery, and the outcome; or, where anything the check was
 * calculated with has changed since, nothing at all.
 */
@Component
class CheckCommit {
    private final DSLContext db;
    private final Clock clock;
    private final CheckStore checks;
    private final UnchangedInputsCheck unchanged;
    private final ResultWriter resultWriter;
    private final MemoryWriter memory;
    private final Incidents incidents;
    private final Triggers triggers;

    CheckCommit(
            DSLContext db,
            Clock clock,
            CheckStore checks,
            UnchangedInputsCheck unchanged,
            ResultWriter resultWriter,
            MemoryWriter memory,
            Incidents incidents,
            Triggers triggers) {
        this.db = db;
        this.clock = clock;
        this.checks = checks;
        this.unchanged = unchanged;
        this.resultWriter = resultWriter;
        this.memory = memory;
        this.incidents = incidents;
        this.triggers = triggers;
    }

    /** @return false: stale, and nothing was written */
    @Transactional
    public boolean commit(Attempt attempt, Evaluation evaluation, ReportPlan plan) {
        if (!unchanged.lock(attempt)) return false;
        var counts = CheckSummary.of(evaluation, plan);
        // A later attempt may have the check, and this one writes nothing.
        if (!checks.end(attempt.checkId(), attempt.number(), counts.state(), null)) return true;
        write(attempt.checkId(), counts);
        checks.read(attempt, evaluation.reading().readAt());
        db.update(RULE_CHECK)
                .set(RULE_CHECK.UNEVALUATED_GROUPS, Json.write(UnevaluatedGroup.first(evaluation, attempt.moment())))
                .where(RULE_CHECK.ID.eq(attempt.checkId()))
                .execute();
        resultWriter.keep(attempt, evaluation, plan);
        moveOn(attempt, counts, Set.of());
        return true;
    }

    /** The numbers of a check that has ended. */
    void write(CheckId checkId, CheckSummary counts) {
        db.update(RULE_CHECK)
                .set(RULE_CHECK.ROWS_READ, counts.rows())
                .set(RULE_CHECK.EXCEPTIONS, counts.exceptions())
                .set(RULE_CHECK.UNKNOWN_ROWS, counts.unknownRows())
                .set(RULE_CHECK.UNEVALUATED, counts.unevaluated())
                .set(RULE_CHECK.UPDATES, counts.news())
                .set(RULE_CHECK.WORST_UPDATE, counts.worstUpdate())
                .set(RULE_CHECK.MESSAGES, counts.messages())
                .set(RULE_CHECK.TOOK_MS, counts.tookMillis())
                .set(RULE_CHECK.OPENED, counts.opened())
                .set(RULE_CHECK.CLEARED, counts.cleared())
                .set(RULE_CHECK.PARTS, Json.write(counts.parts()))
                .set(RULE_CHECK.FINISHED_AT, clock.instant())
                .where(RULE_CHECK.ID.eq(checkId))
                .execute();
    }

    /** What follows from a good check of the rule, in the transaction that ends it. @param copies the keys of its personal copies */
    void moveOn(Attempt attempt, CheckSummary counts, Set<String> copies) {
        incidents.well(attempt.ruleId());
        notifyOfNoRows(attempt, counts);
        triggers.follow(attempt.ruleId(), attempt.checkId(), attempt.slot(), counts.outcomes());
        settle(attempt, copies);
    }

    /** The slot is done, and with it what was owed to what a person did before. */
    void settle(Attempt attempt, Set<String> copies) {
        if (attempt.pending().startsOver())
            memory.endOthers(
                    new MemoryWriter.Writing(attempt.scope(), attempt.checkId(), attempt.slot()), List.copyOf(copies));
        db.update(RULE)
                .set(RULE.LAST_GOOD_SLOT, attempt.slot())
                .set(RULE.MEMORY_EPOCH, RULE.MEMORY_EPOCH.plus(1))
                .set(RULE.PENDING_EDIT, EditEffect.NONE)
                .set(RULE.PENDING_REPORT, ReportChoice.NONE)
                .set(RULE.GOOD_SLOTS, RULE.GOOD_SLOTS.plus(attempt.isCounted() ? 1 : 0))
                .where(RULE.ID.eq(attempt.ruleId()))
                .execute();
    }

    private void notifyOfNoRows(Attempt attempt, CheckSummary counts) {
        var rule = attempt.rule().definition();
        if (rule.triggers().whenEmpty() == WhenEmpty.NOTIFY && counts.rows() == 0)
            incidents.noRows(rule.name(), attempt.ruleId());
    }
}
