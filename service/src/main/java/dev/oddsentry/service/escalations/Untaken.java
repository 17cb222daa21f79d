package dev.oddsentry.service.escalations;

import static dev.oddsentry.service.db.generated.Tables.ESCALATED;
import static dev.oddsentry.service.db.generated.Tables.ESCALATION;
import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static dev.oddsentry.service.db.generated.Tables.HANDLING;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.REPORT;
import static org.jooq.impl.DSL.exists;
import static org.jooq.impl.DSL.notExists;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.selectOne;

import dev.oddsentry.core.definition.DeliveryDefinition.Escalation;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.service.db.generated.tables.records.EscalationRecord;
import dev.oddsentry.service.db.generated.tables.records.FindingRecord;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.memory.FindingEventKind;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Findings that nobody has taken. Each method is part of the caller's transaction. */
@Component
class Untaken {
    private final DSLContext db;

    Untaken(DSLContext db) {
        this.db = db;
    }

    /** Findings reported before the rule had {@code escalate} are not escalated. */
    EscalationRecord lock(RuleId rule, Instant until, Instant now) {
        db.insertInto(ESCALATION)
                .set(ESCALATION.RULE_ID, rule)
                .set(ESCALATION.REPORTS_SEEN_TO, until)
                .set(ESCALATION.HANDLING_SEEN_TO, now)
                .onConflictDoNothing()
                .execute();
        return db.selectFrom(ESCALATION)
                .where(ESCALATION.RULE_ID.eq(rule))
                .forUpdate()
                .fetchSingle();
    }

    /** The time up to which reports are due now. */
    static Instant until(Escalation escalation, Instant now, ZoneId zone) {
        return escalation.after().negated().addTo(now.atZone(zone)).toInstant();
    }

    /**
     * Findings that became due since the last run: reported long enough ago, or no longer handled. Nothing is read twice, so a run costs what is new.
     *
     * @param until mails queued up to then
     */
    List<FindingRecord> due(EscalationRecord from, Escalation escalation, Instant until, Instant now) {
        var told = FINDING.ID.in(select(REPORT.FINDING_ID)
                .from(REPORT)
                .join(MESSAGE)
                .on(MESSAGE.ID.eq(REPORT.MESSAGE_ID))
                .where(
                        MESSAGE.RULE_ID.eq(from.getRuleId()),
                        MESSAGE.CREATED_AT.gt(from.getReportsSeenTo()),
                        MESSAGE.CREATED_AT.le(until)));
        var unmarked = FINDING.ID
                .in(select(HANDLING.FINDING_ID)
                        .from(HANDLING)
                        .where(HANDLING.ENDED_AT
                                .gt(from.getHandlingSeenTo())
                                .and(HANDLING.ENDED_AT.le(now))
                                .or(HANDLING.UNTIL.gt(from.getHandlingSeenTo()).and(HANDLING.UNTIL.le(now)))))
                .and(exists(selectOne()
                        .from(REPORT)
                        .join(MESSAGE)
                        .on(MESSAGE.ID.eq(REPORT.MESSAGE_ID))
                        .where(REPORT.FINDING_ID.eq(FINDING.ID), MESSAGE.CREATED_AT.le(until))));
        return db.selectFrom(FINDING)
                .where(
                        FINDING.RULE_ID.eq(from.getRuleId()),
                        FINDING.STATE.eq(FindingState.OPEN),
                        FINDING.SEVERITY.in(Arrays.stream(Severity.values())
                                .filter(each -> each.compareTo(escalation.minimumSeverity()) >= 0)
                                .toList()),
                        told.or(unmarked),
                        notExists(selectOne().from(HANDLING).where(HANDLING.FINDING_ID.eq(FINDING.ID), stands(now))),
                        notExists(selectOne()
                                .from(ESCALATED)
                                .where(ESCALATED.FINDING_ID.eq(FINDING.ID), ESCALATED.OPENED_AT.eq(FINDING.OPENED_AT))))
                .orderBy(FINDING.SEVERITY.sortAsc(Severity.CRITICAL, Severity.WARNING, Severity.NOTICE), FINDING.ID)
                .fetch();
    }

    private static Condition stands(Instant now) {
        return HANDLING.ENDED_AT.isNull().and(HANDLING.UNTIL.isNull().or(HANDLING.UNTIL.gt(now)));
    }

    void passedOn(List<FindingRecord> findings, MessageId message, Instant now) {
        for (var finding : findings) {
            db.insertInto(ESCALATED)
                    .set(ESCALATED.FINDING_ID, finding.getId())
                    .set(ESCALATED.OPENED_AT, finding.getOpenedAt())
                    .set(ESCALATED.MESSAGE_ID, message)
                    .set(ESCALATED.AT, now)
                    .onConflict(ESCALATED.FINDING_ID)
                    .doUpdate()
                    .setAllToExcluded()
                    .execute();
            db.insertInto(FINDING_EVENT)
                    .set(FINDING_EVENT.FINDING_ID, finding.getId())
                    .set(FINDING_EVENT.KIND, FindingEventKind.ESCALATED)
                    .set(FINDING_EVENT.SEVERITY, finding.getSeverity())
                    .set(FINDING_EVENT.AT, now)
                    .set(FINDING_EVENT.MESSAGE_ID, message)
                    .execute();
        }
    }

    /** A shorter time that the rule is given later finds what lies between. */
    void lookedAt(EscalationRecord row, Instant until, Instant now) {
        if (until.isAfter(row.getReportsSeenTo())) row.setReportsSeenTo(until);
        row.setHandlingSeenTo(now);
        row.update();
    }
}
