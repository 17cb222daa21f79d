package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.REPORT;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.db.generated.tables.records.MessageRecord;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.mail.Repeat;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.util.List;
import java.util.Set;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** What people do with messages: cancel, resend, confirm, report again. */
@Component
public class MessageActions {
    /** Sending has begun and cannot be cancelled. */
    private static final Set<RecipientState> CAN_STOP = Set.of(RecipientState.QUEUED, RecipientState.UNSURE);

    private final DSLContext db;
    private final Outbox outbox;
    private final Repeat repeat;
    private final ReportReversal takingBack;
    private final Audit audit;
    private final Clock clock;

    MessageActions(DSLContext db, Outbox outbox, Repeat repeat, ReportReversal takingBack, Audit audit, Clock clock) {
        this.clock = clock;
        this.db = db;
        this.outbox = outbox;
        this.repeat = repeat;
        this.takingBack = takingBack;
        this.audit = audit;
    }

    /** What was reported stays reported. @return how many recipients no longer get it */
    @Transactional
    public int stop(Person by, MessageId id) {
        var message = require(id);
        int stopped = db.update(MESSAGE_RECIPIENT)
                .set(MESSAGE_RECIPIENT.STATE, RecipientState.CANCELLED)
                .setNull(MESSAGE_RECIPIENT.NEXT_TRY)
                .where(
                        MESSAGE_RECIPIENT.MESSAGE_ID.eq(id),
                        MESSAGE_RECIPIENT
                                .STATE
                                .in(CAN_STOP)
                                .and(MESSAGE_RECIPIENT.NEXT_TRY.isNotNull())
                                .or(MESSAGE_RECIPIENT.STATE.eq(RecipientState.WAITING)))
                .execute();
        if (stopped == 0) throw RefusedException.conflict("Nobody is queued for this message any longer.");
        audit.record(db, by.id(), AuditAct.CANCEL_MESSAGE, message.getSubject(), null);
        return stopped;
    }

    /**
     * The same mail once more, marked as a repeat, under a Message-ID of its own.
     *
     * @param to some of those who were to get it; empty for all
     */
    @Transactional
    public MessageId sendAgain(Person by, MessageId id, List<String> to) {
        var message = require(id);
        var recipients = db.select(MESSAGE_RECIPIENT.ADDRESS)
                .from(MESSAGE_RECIPIENT)
                .where(MESSAGE_RECIPIENT.MESSAGE_ID.eq(id))
                .orderBy(MESSAGE_RECIPIENT.ADDRESS)
                .fetch(MESSAGE_RECIPIENT.ADDRESS);
        var wanted = to.isEmpty()
                ? recipients
                : recipients.stream()
                        .filter(address -> to.stream().anyMatch(address::equalsIgnoreCase))
                        .toList();
        if (wanted.isEmpty() || (!to.isEmpty() && wanted.size() < to.size()))
            throw RefusedException.invalid(
                    "It was for " + String.join(", ", recipients) + "; send it to some of them.");
        settle(id);
        audit.record(db, by.id(), AuditAct.RESEND_MESSAGE, message.getSubject(), String.join(", ", wanted));
        return outbox.queue(
                new MessageCause.OfRepeat(message),
                message.getSlot(),
                repeat.of(message.getMime(), message.getSubject(), wanted));
    }

    /** The next check reports its updates again. */
    @Transactional
    public int reportAgain(Person by, MessageId id) {
        var message = require(id);
        int findings = db.fetchCount(REPORT, REPORT.MESSAGE_ID.in(takingBack.inAllLanguages(id)));
        if (findings == 0) throw RefusedException.conflict("It reported nothing, so there is nothing to report again.");
        takingBack.takeBack(id);
        settle(id);
        audit.record(db, by.id(), AuditAct.REPORT_AGAIN, message.getSubject(), null);
        return findings;
    }

    /** A person found that it arrived where that was not known. @return at how many addresses */
    @Transactional
    public int arrived(Person by, MessageId id) {
        var message = require(id);
        int settled = settle(id);
        if (settled == 0) throw RefusedException.conflict("No recipient of this message is unconfirmed.");
        audit.record(db, by.id(), AuditAct.CONFIRM_MESSAGE, message.getSubject(), null);
        return settled;
    }

    /** With a collection, the messages in it are settled, too. @return how many recipients of the message itself */
    private int settle(MessageId id) {
        settle(MESSAGE_RECIPIENT.COLLECTED_IN.eq(id));
        return settle(MESSAGE_RECIPIENT.MESSAGE_ID.eq(id));
    }

    private int settle(Condition which) {
        return db.update(MESSAGE_RECIPIENT)
                .set(MESSAGE_RECIPIENT.SETTLED_AT, clock.instant())
                .where(
                        which,
                        MESSAGE_RECIPIENT.STATE.eq(RecipientState.UNCONFIRMED),
                        MESSAGE_RECIPIENT.SETTLED_AT.isNull())
                .execute();
    }

    private MessageRecord require(MessageId id) {
        return db.selectFrom(MESSAGE)
                .where(MESSAGE.ID.eq(id))
                .forUpdate()
                .fetchOptional()
                .orElseThrow(() -> RefusedException.notFound("No such message."));
    }
}
