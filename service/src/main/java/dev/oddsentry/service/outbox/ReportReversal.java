package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.LAST_REPORT;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.REPORT;
import static dev.oddsentry.service.db.generated.Tables.RULE;
import static org.jooq.impl.DSL.select;

import dev.oddsentry.service.ids.MessageId;
import java.util.List;
import java.util.Set;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/**
 * Undoes a report if no recipient got the message, so that the next check reports it again. Only last reports of that
 * message are undone; later reports are kept.
 */
@Component
class ReportReversal {
    private static final Set<RecipientState> NOT_GOT = Set.of(RecipientState.REJECTED, RecipientState.EXPIRED);

    private final DSLContext db;

    ReportReversal(DSLContext db) {
        this.db = db;
    }

    /** Part of the transaction that moved the last recipient. */
    void ifNobodyGotIt(MessageId messageId) {
        var all = inAllLanguages(messageId);
        boolean someoneGotOrMayGetIt = db.fetchExists(
                MESSAGE_RECIPIENT, MESSAGE_RECIPIENT.MESSAGE_ID.in(all).and(MESSAGE_RECIPIENT.STATE.notIn(NOT_GOT)));
        if (!someoneGotOrMayGetIt) all.forEach(this::takeBackOne);
    }

    /** Its updates become unreported for all of its recipients. Part of the caller's transaction. */
    void takeBack(MessageId messageId) {
        inAllLanguages(messageId).forEach(this::takeBackOne);
    }

    /** An audience may have several messages, one for each language; last reports refer to one of them. */
    List<MessageId> inAllLanguages(MessageId messageId) {
        var one = MESSAGE.as("one");
        var others = db.select(MESSAGE.ID)
                .from(MESSAGE)
                .join(one)
                .on(one.ID.eq(messageId))
                .where(
                        MESSAGE.CHECK_ID.eq(one.CHECK_ID),
                        MESSAGE.AUDIENCE_ID.eq(one.AUDIENCE_ID),
                        MESSAGE.SLOT.eq(one.SLOT),
                        MESSAGE.REPEAT_OF.isNull(),
                        one.REPEAT_OF.isNull())
                .fetch(MESSAGE.ID);
        return others.isEmpty() ? List.of(messageId) : others;
    }

    private void takeBackOne(MessageId messageId) {
        // A check that runs meanwhile was calculated with the report; it must be stale.
        db.update(RULE)
                .set(RULE.MEMORY_EPOCH, RULE.MEMORY_EPOCH.plus(1))
                .where(RULE.ID.eq(select(MESSAGE.RULE_ID).from(MESSAGE).where(MESSAGE.ID.eq(messageId))))
                .execute();
        db.update(FINDING)
                .set(FINDING.UNREPORTED, true)
                .setNull(FINDING.OPENING_AUDIENCE)
                .set(FINDING.OPENING_REPORTED, false)
                .setNull(FINDING.OPENING_MESSAGE)
                .where(FINDING.OPENING_MESSAGE.eq(messageId))
                .execute();
        db.update(FINDING)
                .set(FINDING.UNREPORTED, true)
                .where(FINDING.ID.in(
                        select(LAST_REPORT.FINDING_ID).from(LAST_REPORT).where(LAST_REPORT.MESSAGE_ID.eq(messageId))))
                .execute();
        db.update(LAST_REPORT)
                .set(LAST_REPORT.STATE, REPORT.BEFORE_STATE)
                .set(LAST_REPORT.SEVERITY, REPORT.BEFORE_SEVERITY)
                .set(LAST_REPORT.FINGERPRINT, REPORT.BEFORE_FINGERPRINT)
                .set(LAST_REPORT.ROW, REPORT.BEFORE_ROW)
                .set(LAST_REPORT.AT, REPORT.BEFORE_AT)
                .set(LAST_REPORT.REPORTED_AT, REPORT.BEFORE_REPORTED_AT)
                .set(LAST_REPORT.MESSAGE_ID, REPORT.BEFORE_MESSAGE_ID)
                .from(REPORT)
                .where(
                        REPORT.MESSAGE_ID.eq(messageId),
                        LAST_REPORT.MESSAGE_ID.eq(messageId),
                        LAST_REPORT.FINDING_ID.eq(REPORT.FINDING_ID),
                        LAST_REPORT.AUDIENCE_ID.eq(REPORT.AUDIENCE_ID),
                        REPORT.BEFORE_STATE.isNotNull())
                .execute();
        db.deleteFrom(LAST_REPORT).where(LAST_REPORT.MESSAGE_ID.eq(messageId)).execute();
    }
}
