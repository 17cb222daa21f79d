package dev.oddsentry.service.retention;

import static dev.oddsentry.service.db.generated.Tables.AUDIT_EVENT;
import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static dev.oddsentry.service.db.generated.Tables.FORGOTTEN;
import static dev.oddsentry.service.db.generated.Tables.HANDLING;
import static dev.oddsentry.service.db.generated.Tables.INCIDENT;
import static dev.oddsentry.service.db.generated.Tables.INCIDENT_RULE;
import static dev.oddsentry.service.db.generated.Tables.LAST_REPORT;
import static dev.oddsentry.service.db.generated.Tables.LONG_WORK;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.RECIPIENT_TRY;
import static dev.oddsentry.service.db.generated.Tables.REPORT;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;
import static dev.oddsentry.service.db.generated.Tables.RULE_TRIGGER;
import static dev.oddsentry.service.db.generated.Tables.SERIES_POINT;
import static org.jooq.impl.DSL.any;
import static org.jooq.impl.DSL.exists;
import static org.jooq.impl.DSL.notExists;
import static org.jooq.impl.DSL.row;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.selectOne;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.outbox.RecipientState;
import dev.oddsentry.service.rules.CheckState;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Set;
import java.util.UUID;
import java.util.function.IntSupplier;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Table;
import org.jooq.TableField;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Takes away, some at a time, what is over and older than the operator wants to keep. One node does it, twice a day. */
@Component
public class Retention {
    private static final Logger LOG = LoggerFactory.getLogger(Retention.class);
    private static final Duration EVERY = Duration.ofHours(12);
    private static final int AT_ONCE = 2_000;
    private static final Set<RecipientState> NOT_OVER =
            Set.of(RecipientState.QUEUED, RecipientState.SENDING, RecipientState.UNSURE, RecipientState.WAITING);

    private final DSLContext db;
    private final ForgettingFindings findings;
    private final TransactionTemplate transactions;
    private final Settings.Retention kept;
    private final Clock clock;

    Retention(
            DSLContext db,
            ForgettingFindings findings,
            TransactionTemplate transactions,
            Settings settings,
            Clock clock) {
        this.db = db;
        this.findings = findings;
        this.transactions = transactions;
        this.kept = settings.retention();
        this.clock = clock;
    }

    public RecurringTask<Void> task() {
        return Tasks.recurring("retention", FixedDelay.of(EVERY)).execute((_, _) -> run());
    }

    /** Findings first: they hold on to messages and checks. */
    void run() {
        long gone = findings.forget();
        gone += inBatches(this::messages);
        gone += inBatches(this::events);
        gone += inBatches(this::checks);
        gone += inBatches(() -> old(RULE_TRIGGER, RULE_TRIGGER.ID, RULE_TRIGGER.SLOT, kept.longWork()));
        gone += inBatches(() -> old(FORGOTTEN, FORGOTTEN.KEY, FORGOTTEN.FORGOTTEN_AT, kept.traces()));
        gone += inBatches(() -> old(AUDIT_EVENT, AUDIT_EVENT.ID, AUDIT_EVENT.AT, kept.audit()));
        gone += inBatches(() -> old(LONG_WORK, LONG_WORK.ID, LONG_WORK.ENDED_AT, kept.longWork()));
        gone += inBatches(this::points);
        gone += inBatches(this::incidents);
        if (gone > 0) LOG.info("Retention took {} rows away.", gone);
    }

    private Instant before(int days) {
        return clock.instant().minus(Duration.ofDays(days));
    }

    /** One transaction for each batch, so that nobody waits long for a lock. */
    private long inBatches(IntSupplier batch) {
        long all = 0;
        while (true) {
            Integer some = transactions.execute(_ -> batch.getAsInt());
            if (some == null || some == 0) return all;
            all += some;
        }
    }

    private <K> int old(Table<?> table, TableField<?, K> id, TableField<?, Instant> at, int days) {
        return db.deleteFrom(table)
                .where(
                        at.lt(before(days)),
                        id.in(select(id).from(table).where(at.lt(before(days))).limit(AT_ONCE)))
                .execute();
    }

    private int messages() {
        var ids = db.select(MESSAGE.ID)
                .from(MESSAGE)
                .where(
                        MESSAGE.CREATED_AT.lt(before(kept.messages())),
                        notExists(selectOne()
                                .from(MESSAGE_RECIPIENT)
                                .where(
                                        MESSAGE_RECIPIENT.MESSAGE_ID.eq(MESSAGE.ID),
                                        MESSAGE_RECIPIENT.STATE.in(NOT_OVER))))
                .limit(AT_ONCE)
                .fetch(row -> row.value1().value())
                .toArray(UUID[]::new);
        if (ids.length == 0) return 0;
        // What was reported outlives the message that reported it.
        db.update(FINDING)
                .setNull(FINDING.OPENING_MESSAGE)
                .where(isOneOf(FINDING.OPENING_MESSAGE, ids))
                .execute();
        db.update(LAST_REPORT)
                .setNull(LAST_REPORT.MESSAGE_ID)
                .where(isOneOf(LAST_REPORT.MESSAGE_ID, ids))
                .execute();
        db.update(FINDING_EVENT)
                .setNull(FINDING_EVENT.MESSAGE_ID)
                .where(isOneOf(FINDING_EVENT.MESSAGE_ID, ids))
                .execute();
        db.deleteFrom(REPORT).where(isOneOf(REPORT.MESSAGE_ID, ids)).execute();
        db.deleteFrom(RECIPIENT_TRY)
                .where(isOneOf(RECIPIENT_TRY.MESSAGE_ID, ids))
                .execute();
        db.deleteFrom(MESSAGE_RECIPIENT)
                .where(isOneOf(MESSAGE_RECIPIENT.MESSAGE_ID, ids))
                .execute();
        return db.deleteFrom(MESSAGE).where(isOneOf(MESSAGE.ID, ids)).execute();
    }

    /** One value for all of them, however many. */
    private static Condition isOneOf(Field<?> column, UUID[] ids) {
        return column.coerce(UUID.class).eq(any(ids));
    }

    private int events() {
        return old(FINDING_EVENT, FINDING_EVENT.ID, FINDING_EVENT.AT, kept.checks());
    }

    private int checks() {
        var newer = RULE_CHECK.as("newer");
        var ids = db.select(RULE_CHECK.ID)
                .from(RULE_CHECK)
                .where(
                        RULE_CHECK.FINISHED_AT.lt(before(kept.checks())),
                        RULE_CHECK.STATE.ne(CheckState.AWAITING_APPROVAL),
                        // A message that is kept longer names its check; and the last check of a rule says how it
                        // stands.
                        notExists(selectOne().from(MESSAGE).where(MESSAGE.CHECK_ID.eq(RULE_CHECK.ID))),
                        exists(selectOne()
                                .from(newer)
                                .where(newer.RULE_ID.eq(RULE_CHECK.RULE_ID), newer.SLOT.gt(RULE_CHECK.SLOT))))
                .limit(AT_ONCE)
                .fetch(row -> row.value1().value())
                .toArray(UUID[]::new);
        if (ids.length == 0) return 0;
        db.update(FINDING_EVENT)
                .setNull(FINDING_EVENT.CHECK_ID)
                .where(isOneOf(FINDING_EVENT.CHECK_ID, ids))
                .execute();
        db.update(HANDLING)
                .setNull(HANDLING.ENDED_CHECK)
                .where(isOneOf(HANDLING.ENDED_CHECK, ids))
                .execute();
        db.deleteFrom(RULE_TRIGGER)
                .where(isOneOf(RULE_TRIGGER.CHECK_ID, ids).or(isOneOf(RULE_TRIGGER.PARENT_ID, ids)))
                .execute();
        db.update(RULE_CHECK)
                .setNull(RULE_CHECK.PARENT_ID)
                .where(isOneOf(RULE_CHECK.PARENT_ID, ids))
                .execute();
        return db.deleteFrom(RULE_CHECK).where(isOneOf(RULE_CHECK.ID, ids)).execute();
    }

    private int points() {
        var some = select(SERIES_POINT.SERIES_ID, SERIES_POINT.SLOT)
                .from(SERIES_POINT)
                .where(SERIES_POINT.SLOT.lt(before(kept.points())))
                .limit(AT_ONCE);
        return db.deleteFrom(SERIES_POINT)
                .where(row(SERIES_POINT.SERIES_ID, SERIES_POINT.SLOT).in(some))
                .execute();
    }

    /** Mail about incident names it, so it stays as long as that mail. */
    private int incidents() {
        var ids = db.select(INCIDENT.ID)
                .from(INCIDENT)
                .where(
                        INCIDENT.OVER_AT.lt(before(kept.messages())),
                        notExists(selectOne().from(MESSAGE).where(MESSAGE.INCIDENT_ID.eq(INCIDENT.ID))))
                .limit(AT_ONCE)
                .fetch(INCIDENT.ID)
                .toArray(Long[]::new);
        if (ids.length == 0) return 0;
        db.deleteFrom(INCIDENT_RULE)
                .where(INCIDENT_RULE.INCIDENT_ID.eq(any(ids)))
                .execute();
        return db.deleteFrom(INCIDENT).where(INCIDENT.ID.eq(any(ids))).execute();
    }
}
