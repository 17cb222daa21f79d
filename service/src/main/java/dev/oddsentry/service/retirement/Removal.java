package dev.oddsentry.service.retirement;

import static dev.oddsentry.service.db.generated.Tables.AUDIENCE;
import static dev.oddsentry.service.db.generated.Tables.CHECK_COPY;
import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.DEFINITION_REVISION;
import static dev.oddsentry.service.db.generated.Tables.DELIVERY_NOTICE;
import static dev.oddsentry.service.db.generated.Tables.ESCALATED;
import static dev.oddsentry.service.db.generated.Tables.ESCALATION;
import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static dev.oddsentry.service.db.generated.Tables.FORGOTTEN;
import static dev.oddsentry.service.db.generated.Tables.HANDLING;
import static dev.oddsentry.service.db.generated.Tables.INCIDENT_RULE;
import static dev.oddsentry.service.db.generated.Tables.LAST_REPORT;
import static dev.oddsentry.service.db.generated.Tables.LONG_WORK;
import static dev.oddsentry.service.db.generated.Tables.MAIL_HOLD;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_FILE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.QUERY_COLUMNS;
import static dev.oddsentry.service.db.generated.Tables.READER_CHOICE;
import static dev.oddsentry.service.db.generated.Tables.RECIPIENT_TRY;
import static dev.oddsentry.service.db.generated.Tables.REPORT;
import static dev.oddsentry.service.db.generated.Tables.ROUND_UP;
import static dev.oddsentry.service.db.generated.Tables.RULE;
import static dev.oddsentry.service.db.generated.Tables.RULE_AFTER;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;
import static dev.oddsentry.service.db.generated.Tables.RULE_COPY;
import static dev.oddsentry.service.db.generated.Tables.RULE_DRAFT;
import static dev.oddsentry.service.db.generated.Tables.RULE_EVENT;
import static dev.oddsentry.service.db.generated.Tables.RULE_PASSWORD;
import static dev.oddsentry.service.db.generated.Tables.RULE_TRIGGER;
import static dev.oddsentry.service.db.generated.Tables.SEEN_GROUP;
import static dev.oddsentry.service.db.generated.Tables.SERIES;
import static dev.oddsentry.service.db.generated.Tables.SERIES_POINT;
import static dev.oddsentry.service.db.generated.Tables.THRESHOLD_VALUE;
import static dev.oddsentry.service.db.generated.Tables.UNSUBSCRIPTION;
import static org.jooq.impl.DSL.select;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.definitions.Archive;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.Uses;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.outbox.RecipientState;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record1;
import org.jooq.Select;
import org.jooq.Table;
import org.jooq.TableField;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Removes for good what was retired, with its history. What it told in the messages of round-ups stays there; the audit stays whole. */
@Component
public class Removal {
    private static final Set<RecipientState> NOT_OVER =
            Set.of(RecipientState.QUEUED, RecipientState.SENDING, RecipientState.UNSURE, RecipientState.WAITING);

    /** What is kept of a rule by itself. */
    private static final List<TableField<?, RuleId>> OF_RULE = List.of(
            ESCALATION.RULE_ID,
            INCIDENT_RULE.RULE_ID,
            LONG_WORK.RULE_ID,
            MAIL_HOLD.RULE_ID,
            RULE_AFTER.RULE_ID,
            RULE_COPY.RULE_ID,
            RULE_DRAFT.RULE_ID,
            RULE_EVENT.RULE_ID,
            RULE_PASSWORD.RULE_ID,
            RULE_TRIGGER.RULE_ID);

    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Archive archive;
    private final Uses uses;
    private final Audit audit;

    Removal(DSLContext db, DefinitionStore definitions, Archive archive, Uses uses, Audit audit) {
        this.db = db;
        this.definitions = definitions;
        this.archive = archive;
        this.uses = uses;
        this.audit = audit;
    }

    /** How much goes with a definition. */
    public record RemovalCounts(
            int revisions, int checks, int findings, int messages, int measurements, int thresholdValues) {}

    /** @throws RefusedException if it was not retired, or something else still names it */
    @Transactional(readOnly = true)
    public RemovalCounts counts(Kind kind, String name) {
        return counts(removable(kind, name));
    }

    /** @throws RefusedException if it was not retired, something else still names it, or mail of it is on its way */
    @Transactional
    public RemovalCounts remove(Person by, Kind kind, String name) {
        definitions.lock(kind, null, name);
        var id = removable(kind, name);
        var counts = counts(id);
        refuseMailOnItsWay(id, name);
        removeMessages(collections(id));
        removeMessages(messages(id));
        removeRule(new RuleId(id));
        removeAudiences(AUDIENCE.ROUND_UP_ID.eq(id));
        delete(ROUND_UP, ROUND_UP.ID.eq(id));
        delete(UNSUBSCRIPTION, UNSUBSCRIPTION.DEFINITION_ID.eq(id));
        delete(READER_CHOICE, READER_CHOICE.DEFINITION_ID.eq(id));
        delete(DELIVERY_NOTICE, DELIVERY_NOTICE.DEFINITION_ID.eq(id));
        delete(THRESHOLD_VALUE, THRESHOLD_VALUE.THRESHOLD_ID.eq(id));
        delete(QUERY_COLUMNS, QUERY_COLUMNS.DEFINITION_ID.eq(id));
        delete(DEFINITION_REVISION, DEFINITION_REVISION.DEFINITION_ID.eq(id));
        delete(DEFINITION, DEFINITION.ID.eq(id));
        audit.record(
                db,
                by.id(),
                AuditAct.REMOVE_DEFINITION,
                name,
                kind.words() + ": " + counts.revisions() + " revisions, " + counts.checks() + " checks, "
                        + counts.findings() + " findings, " + counts.messages() + " messages");
        return counts;
    }

    private UUID removable(Kind kind, String name) {
        var entry = archive.of(kind, name)
                .orElseThrow(() -> definitions.idOf(kind, name).isEmpty()
                        ? RefusedException.notFound("There is no " + kind.words() + " \"" + name + "\".")
                        : RefusedException.conflict("\"" + name + "\" is not retired. Retire it first."));
        List<Definition> users = uses.everOf(kind, name);
        if (!users.isEmpty())
            throw RefusedException.conflict(
                    "\"" + name + "\" is named by " + Retirement.list(users) + ". Remove or change that first.");
        return entry.id();
    }

    private void refuseMailOnItsWay(UUID id, String name) {
        boolean waiting = db.fetchExists(
                MESSAGE_RECIPIENT, MESSAGE_RECIPIENT.STATE.in(NOT_OVER), MESSAGE_RECIPIENT.MESSAGE_ID.in(messages(id)));
        if (waiting)
            throw RefusedException.conflict("Messages of \"" + name + "\" wait to be sent. Send or cancel them first.");
    }

    private RemovalCounts counts(UUID id) {
        var rule = new RuleId(id);
        return new RemovalCounts(
                db.fetchCount(DEFINITION_REVISION, DEFINITION_REVISION.DEFINITION_ID.eq(id)),
                db.fetchCount(RULE_CHECK, RULE_CHECK.RULE_ID.eq(rule)),
                db.fetchCount(FINDING, FINDING.RULE_ID.eq(rule)),
                db.fetchCount(MESSAGE, MESSAGE.ID.in(messages(id))),
                db.fetchCount(
                        SERIES_POINT,
                        SERIES_POINT.SERIES_ID.in(select(SERIES.ID).from(SERIES).where(SERIES.RULE_ID.eq(rule)))),
                db.fetchCount(THRESHOLD_VALUE, THRESHOLD_VALUE.THRESHOLD_ID.eq(id)));
    }

    private static Select<Record1<MessageId>> messages(UUID id) {
        return select(MESSAGE.ID)
                .from(MESSAGE)
                .where(MESSAGE.RULE_ID
                        .eq(new RuleId(id))
                        .or(MESSAGE.PREVIEW_OF.eq(new RuleId(id)))
                        .or(MESSAGE.ESCALATION_OF.eq(new RuleId(id)))
                        .or(MESSAGE.ROUND_UP_ID.eq(id))
                        .or(MESSAGE.QUESTION_ABOUT.eq(id)));
    }

    /** What went to recipients together with messages of it. */
    private static Select<Record1<MessageId>> collections(UUID id) {
        return select(MESSAGE_RECIPIENT.COLLECTED_IN)
                .from(MESSAGE_RECIPIENT)
                .where(MESSAGE_RECIPIENT.COLLECTED_IN.isNotNull(), MESSAGE_RECIPIENT.MESSAGE_ID.in(messages(id)));
    }

    private void removeMessages(Select<Record1<MessageId>> messages) {
        db.update(FINDING)
                .setNull(FINDING.OPENING_MESSAGE)
                .where(FINDING.OPENING_MESSAGE.in(messages))
                .execute();
        db.update(FINDING_EVENT)
                .setNull(FINDING_EVENT.MESSAGE_ID)
                .where(FINDING_EVENT.MESSAGE_ID.in(messages))
                .execute();
        db.update(LAST_REPORT)
                .setNull(LAST_REPORT.MESSAGE_ID)
                .where(LAST_REPORT.MESSAGE_ID.in(messages))
                .execute();
        delete(REPORT, REPORT.MESSAGE_ID.in(messages));
        delete(ESCALATED, ESCALATED.MESSAGE_ID.in(messages));
        delete(UNSUBSCRIPTION, UNSUBSCRIPTION.MESSAGE_ID.in(messages));
        delete(DELIVERY_NOTICE, DELIVERY_NOTICE.MESSAGE_ID.in(messages));
        delete(MESSAGE_FILE, MESSAGE_FILE.MESSAGE_ID.in(messages));
        delete(RECIPIENT_TRY, RECIPIENT_TRY.MESSAGE_ID.in(messages));
        delete(MESSAGE_RECIPIENT, MESSAGE_RECIPIENT.MESSAGE_ID.in(messages));
        delete(MESSAGE, MESSAGE.ID.in(messages));
    }

    private void removeRule(RuleId rule) {
        var findings = select(FINDING.ID).from(FINDING).where(FINDING.RULE_ID.eq(rule));
        var checks = select(RULE_CHECK.ID).from(RULE_CHECK).where(RULE_CHECK.RULE_ID.eq(rule));
        var series = select(SERIES.ID).from(SERIES).where(SERIES.RULE_ID.eq(rule));
        delete(REPORT, REPORT.FINDING_ID.in(findings));
        delete(LAST_REPORT, LAST_REPORT.FINDING_ID.in(findings));
        delete(ESCALATED, ESCALATED.FINDING_ID.in(findings));
        delete(HANDLING, HANDLING.FINDING_ID.in(findings));
        delete(FINDING_EVENT, FINDING_EVENT.FINDING_ID.in(findings));
        delete(FINDING, FINDING.RULE_ID.eq(rule));
        delete(FORGOTTEN, FORGOTTEN.RULE_ID.eq(rule));
        delete(SEEN_GROUP, SEEN_GROUP.RULE_ID.eq(rule));
        delete(SERIES_POINT, SERIES_POINT.SERIES_ID.in(series));
        delete(SERIES, SERIES.RULE_ID.eq(rule));
        removeChecks(rule, checks);
        removeAudiences(AUDIENCE.RULE_ID.eq(rule));
        for (var column : OF_RULE) delete(Objects.requireNonNull(column.getTable()), column.eq(rule));
        delete(RULE_AFTER, RULE_AFTER.PARENT_ID.eq(rule));
        delete(RULE, RULE.ID.eq(rule));
    }

    /** With what was reported to them. Messages of other definitions stay, without their audience. */
    private void removeAudiences(Condition which) {
        var audiences = select(AUDIENCE.ID).from(AUDIENCE).where(which);
        delete(REPORT, REPORT.AUDIENCE_ID.in(audiences));
        delete(LAST_REPORT, LAST_REPORT.AUDIENCE_ID.in(audiences));
        db.update(MESSAGE)
                .setNull(MESSAGE.AUDIENCE_ID)
                .where(MESSAGE.AUDIENCE_ID.in(audiences))
                .execute();
        delete(AUDIENCE, which);
    }

    /** Checks of other rules may have followed one of these. */
    private void removeChecks(RuleId rule, Select<Record1<CheckId>> checks) {
        delete(CHECK_COPY, CHECK_COPY.CHECK_ID.in(checks));
        delete(RULE_TRIGGER, RULE_TRIGGER.CHECK_ID.in(checks).or(RULE_TRIGGER.PARENT_ID.in(checks)));
        db.update(RULE_CHECK)
                .setNull(RULE_CHECK.PARENT_ID)
                .where(RULE_CHECK.PARENT_ID.in(checks))
                .execute();
        db.update(HANDLING)
                .setNull(HANDLING.ENDED_CHECK)
                .where(HANDLING.ENDED_CHECK.in(checks))
                .execute();
        delete(RULE_CHECK, RULE_CHECK.RULE_ID.eq(rule));
    }

    private void delete(Table<?> table, Condition which) {
        db.deleteFrom(table).where(which).execute();
    }
}
