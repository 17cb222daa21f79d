package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.MAIL_HOLD;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;
import static org.jooq.Records.mapping;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.exists;
import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.selectOne;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Role;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Outgoing mail that people hold: it is queued and can be read, and nothing is handed over until it is released or thrown away. */
@Component
public class Holds {
    private final DSLContext db;
    private final Clock clock;
    private final SendTasks tasks;
    private final Audit audit;

    Holds(DSLContext db, Clock clock, SendTasks tasks, Audit audit) {
        this.db = db;
        this.clock = clock;
        this.tasks = tasks;
        this.audit = audit;
    }

    /**
     * One that stands.
     *
     * @param source null unless it is of the rules on one
     * @param rule null unless it is of one; where both are null, it is of all mail
     * @param by null where the service itself holds it
     * @param messages how many wait because of it
     */
    public record Hold(
            long id,
            @Nullable String source,
            @Nullable String rule,
            String reason,
            @Nullable String by,
            Instant at,
            int messages) {}

    public List<Hold> standing() {
        var messages = field(select(count())
                .from(MESSAGE)
                .where(isOf(), exists(selectOne().from(MESSAGE_RECIPIENT).where(waits()))));
        return db.select(
                        MAIL_HOLD.ID,
                        MAIL_HOLD.SOURCE,
                        DEFINITION.NAME,
                        MAIL_HOLD.REASON,
                        PERSON.NAME,
                        MAIL_HOLD.HELD_AT,
                        messages)
                .from(MAIL_HOLD)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(MAIL_HOLD.HELD_BY))
                .leftJoin(DEFINITION)
                .on(DEFINITION.ID.eq(MAIL_HOLD.RULE_ID.coerce(DEFINITION.ID)))
                .where(MAIL_HOLD.ENDED_AT.isNull())
                .orderBy(MAIL_HOLD.ID)
                .fetch(mapping(Hold::new));
    }

    /** True of a message that a hold is about; a preview that a person sent to themselves is no outgoing mail. */
    public static Condition isHeld() {
        return exists(selectOne().from(MAIL_HOLD).where(MAIL_HOLD.ENDED_AT.isNull(), isOf()));
    }

    private static Condition isOf() {
        var ofSource = MESSAGE.CHECK_ID.in(select(RULE_CHECK.ID)
                .from(RULE_CHECK)
                .where(RULE_CHECK.ID.eq(MESSAGE.CHECK_ID), RULE_CHECK.SOURCE_NAME.eq(MAIL_HOLD.SOURCE)));
        return MESSAGE.PREVIEW_OF
                .isNull()
                .and(MESSAGE.TRIAL_OF.isNull())
                .and(MAIL_HOLD
                        .SOURCE
                        .isNull()
                        .and(MAIL_HOLD.RULE_ID.isNull())
                        .or(MAIL_HOLD.RULE_ID.eq(MESSAGE.RULE_ID))
                        .or(MAIL_HOLD.RULE_ID.eq(MESSAGE.ESCALATION_OF))
                        .or(ofSource));
    }

    private static Condition waits() {
        return MESSAGE_RECIPIENT
                .MESSAGE_ID
                .eq(MESSAGE.ID)
                .and(MESSAGE_RECIPIENT
                        .STATE
                        .in(RecipientState.QUEUED, RecipientState.UNSURE)
                        .and(MESSAGE_RECIPIENT.NEXT_TRY.isNotNull())
                        .or(MESSAGE_RECIPIENT.STATE.eq(RecipientState.WAITING)));
    }

    /** @param rule null, as is the source, for all mail */
    @Transactional
    public void hold(Person by, @Nullable String source, @Nullable RuleId rule, String why) {
        if (by.role() != Role.OPERATOR && rule == null)
            throw RefusedException.forbidden("Only an operator holds the mail of all rules, or of a source.");
        db.insertInto(MAIL_HOLD)
                .set(MAIL_HOLD.SOURCE, source)
                .set(MAIL_HOLD.RULE_ID, rule)
                .set(MAIL_HOLD.REASON, why)
                .set(MAIL_HOLD.HELD_BY, by.id())
                .set(MAIL_HOLD.HELD_AT, clock.instant())
                .execute();
        audit.record(db, by.id(), AuditAct.HOLD_MAIL, source == null ? String.valueOf(rule) : source, why);
    }

    /**
     * Ends a hold.
     *
     * @param throwAway whether what waits because of it is stopped, rather than sent
     * @return how many messages waited
     */
    @Transactional
    public int end(Person by, long id, boolean throwAway) {
        var hold = db.selectFrom(MAIL_HOLD)
                .where(MAIL_HOLD.ID.eq(id), MAIL_HOLD.ENDED_AT.isNull())
                .forUpdate()
                .fetchOptional()
                .orElseThrow(() -> RefusedException.notFound("This hold has ended."));
        if (by.role() != Role.OPERATOR && hold.getRuleId() == null)
            throw RefusedException.forbidden("Only an operator ends this hold.");
        var waiting = db.select(MESSAGE.ID)
                .from(MESSAGE)
                .join(MAIL_HOLD)
                .on(MAIL_HOLD.ID.eq(id))
                .where(isOf(), exists(selectOne().from(MESSAGE_RECIPIENT).where(waits())))
                .fetch(MESSAGE.ID);
        hold.setEndedAt(clock.instant());
        hold.setEndedBy(by.id());
        hold.update();
        if (throwAway)
            db.update(MESSAGE_RECIPIENT)
                    .set(MESSAGE_RECIPIENT.STATE, RecipientState.CANCELLED)
                    .setNull(MESSAGE_RECIPIENT.NEXT_TRY)
                    .where(
                            MESSAGE_RECIPIENT.MESSAGE_ID.in(waiting),
                            MESSAGE_RECIPIENT.STATE.in(
                                    RecipientState.QUEUED, RecipientState.UNSURE, RecipientState.WAITING))
                    .execute();
        waiting.forEach(message -> tasks.planAt(message, clock.instant()));
        audit.record(
                db,
                by.id(),
                throwAway ? AuditAct.DISCARD_HELD_MAIL : AuditAct.RELEASE_HELD_MAIL,
                String.valueOf(id),
                null);
        return waiting.size();
    }
}
