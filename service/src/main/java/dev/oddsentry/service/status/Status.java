package dev.oddsentry.service.status;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.INCIDENT;
import static dev.oddsentry.service.db.generated.Tables.INCIDENT_RULE;
import static dev.oddsentry.service.db.generated.Tables.MAIL_HOLD;
import static dev.oddsentry.service.db.generated.Tables.MAIL_TASKS;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.NODE;
import static dev.oddsentry.service.db.generated.Tables.RULE;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;
import static dev.oddsentry.service.db.generated.Tables.SCHEDULED_TASKS;
import static org.jooq.impl.DSL.coalesce;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.exists;
import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.max;
import static org.jooq.impl.DSL.min;
import static org.jooq.impl.DSL.notExists;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.selectOne;

import dev.oddsentry.service.config.Node;
import dev.oddsentry.service.db.generated.tables.records.IncidentRuleRecord;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.failures.IncidentKind;
import dev.oddsentry.service.outbox.RecipientState;
import dev.oddsentry.service.rules.CheckState;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.visibility.Visibility;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Reads from the records what an operator must know. */
@Component
public class Status {
    private static final Duration LATE = Duration.ofMinutes(2);
    private static final Duration STUCK = Duration.ofMinutes(10);
    private static final Duration SEEN_WITHIN = Duration.ofSeconds(30);
    private static final Duration DELIVERED_IN = Duration.ofDays(14);
    private static final Duration LOOKED_AT = Duration.ofDays(1);

    private final DSLContext db;
    private final Node node;
    private final Clock clock;
    private final Visibility visibility;

    Status(DSLContext db, Node node, Clock clock, Visibility visibility) {
        this.visibility = visibility;
        this.db = db;
        this.node = node;
        this.clock = clock;
    }

    /** @param detail of the mail server to the first recipient */
    record UndeliveredMail(String name, Instant since, String detail) {}

    /** @param clockAheadMillis how far the clock of its machine is ahead of the database's; one that is off takes no work */
    record NodeView(String name, Instant startedAt, long clockAheadMillis, boolean takesWork) {}

    /**
     * @param name of the source or the rule
     * @param failure of the latest failure among them; null where nothing failed
     * @param reason the same in words
     */
    record IncidentView(
            IncidentKind kind,
            String name,
            Instant since,
            List<String> rules,
            @Nullable FailureKind failure,
            String reason) {}

    /**
     * @param due rules whose slot has come and that wait for their turn
     * @param highestLatenessSeconds how late the one is that waits longest
     * @param holds of outgoing mail that are in force
     * @param unconfirmed recipients for whom it is unknown whether a message arrived, until a person decides
     * @param notDelivered rules and round-ups whose latest message reached nobody
     * @param nodes processes of the service that were seen within the last half minute
     * @param outcomes of the last day's checks, by how they ended
     * @param oldestQueuedSeconds how long the oldest message waits that somebody has not got
     * @param problems in words, each a reason not to be at ease; empty where all is well
     */
    public record StatusView(
            Instant at,
            String node,
            int activeRules,
            int running,
            int due,
            long highestLatenessSeconds,
            @Nullable Instant lastFinished,
            Map<CheckState, Integer> outcomes,
            int awaitingApproval,
            int queuedMessages,
            long oldestQueuedSeconds,
            int holds,
            int unconfirmed,
            List<UndeliveredMail> notDelivered,
            List<NodeView> nodes,
            int tasksFailing,
            List<IncidentView> incidents,
            List<String> problems) {}

    public StatusView look() {
        Instant now = clock.instant();
        var due = db.select(count(), min(RULE.NEXT_SLOT))
                .from(RULE)
                .where(RULE.STATE.eq(RuleState.ACTIVE), RULE.NEXT_SLOT.le(now))
                .fetchSingle();
        var waiting = db.select(count(), min(MESSAGE.CREATED_AT))
                .from(MESSAGE)
                .where(MESSAGE.ID.in(select(MESSAGE_RECIPIENT.MESSAGE_ID)
                        .from(MESSAGE_RECIPIENT)
                        .where(MESSAGE_RECIPIENT.STATE.in(
                                RecipientState.QUEUED, RecipientState.SENDING, RecipientState.UNSURE))
                        .and(MESSAGE_RECIPIENT.NEXT_TRY.isNotNull())))
                .fetchSingle();
        var visible = visibility.now();
        int awaitingApproval = db.fetchCount(
                RULE_CHECK, RULE_CHECK.STATE.eq(CheckState.AWAITING_APPROVAL), visible.rules(RULE_CHECK.RULE_ID));
        int failing = db.fetchCount(SCHEDULED_TASKS, SCHEDULED_TASKS.CONSECUTIVE_FAILURES.gt(2))
                + db.fetchCount(MAIL_TASKS, MAIL_TASKS.CONSECUTIVE_FAILURES.gt(2));
        int holds = db.fetchCount(MAIL_HOLD, MAIL_HOLD.ENDED_AT.isNull(), visible.rules(MAIL_HOLD.RULE_ID));
        long latest = seconds(due.value2(), now);
        long oldest = seconds(waiting.value2(), now);
        var incidents = incidents();
        int unconfirmed = db.fetchCount(
                MESSAGE_RECIPIENT,
                MESSAGE_RECIPIENT.STATE.eq(RecipientState.UNCONFIRMED).and(MESSAGE_RECIPIENT.SETTLED_AT.isNull()));
        var notDelivered = notDelivered(now);
        var nodes = nodes(now);
        var problems = problems(latest, awaitingApproval, oldest, holds, failing, incidents);
        problems.addAll(mailProblems(unconfirmed, notDelivered));
        problems.addAll(clockProblems(nodes));
        return new StatusView(
                now,
                node.name(),
                db.fetchCount(RULE, RULE.STATE.eq(RuleState.ACTIVE), visible.rules(RULE.ID)),
                db.fetchCount(RULE_CHECK, RULE_CHECK.STATE.eq(CheckState.RUNNING), visible.rules(RULE_CHECK.RULE_ID)),
                due.value1(),
                latest,
                db.select(max(RULE_CHECK.FINISHED_AT)).from(RULE_CHECK).fetchOne(0, Instant.class),
                outcomes(now),
                awaitingApproval,
                waiting.value1(),
                oldest,
                holds,
                unconfirmed,
                notDelivered,
                nodes,
                failing,
                incidents,
                problems);
    }

    private static long seconds(@Nullable Instant since, Instant now) {
        return since == null ? 0 : Math.max(0, Duration.between(since, now).toSeconds());
    }

    private Map<CheckState, Integer> outcomes(Instant now) {
        return db.select(RULE_CHECK.STATE, count())
                .from(RULE_CHECK)
                .where(
                        RULE_CHECK.STARTED_AT.gt(now.minus(LOOKED_AT)),
                        visibility.now().rules(RULE_CHECK.RULE_ID))
                .groupBy(RULE_CHECK.STATE)
                .fetchMap(RULE_CHECK.STATE, row -> row.value2());
    }

    private List<IncidentView> incidents() {
        var rules = db.select(INCIDENT_RULE.INCIDENT_ID, DEFINITION.NAME)
                .from(INCIDENT_RULE)
                .join(DEFINITION)
                .on(DEFINITION.ID.eq(INCIDENT_RULE.RULE_ID.coerce(DEFINITION.ID)))
                .where(INCIDENT_RULE.RECOVERED_AT.isNull(), visibility.now().rules(INCIDENT_RULE.RULE_ID))
                .orderBy(DEFINITION.NAME)
                .fetchGroups(INCIDENT_RULE.INCIDENT_ID, DEFINITION.NAME);
        return db.selectFrom(INCIDENT).where(INCIDENT.OVER_AT.isNull()).orderBy(INCIDENT.BEGAN_AT).fetch().stream()
                .filter(incident -> rules.containsKey(incident.getId()))
                .map(incident -> {
                    var latest = latestFailure(incident.getId());
                    return new IncidentView(
                            incident.getKind(),
                            incident.getName(),
                            incident.getBeganAt(),
                            rules.getOrDefault(incident.getId(), List.of()),
                            latest.getFailure(),
                            latest.getReason());
                })
                .toList();
    }

    private IncidentRuleRecord latestFailure(long incident) {
        return db.selectFrom(INCIDENT_RULE)
                .where(
                        INCIDENT_RULE.INCIDENT_ID.eq(incident),
                        INCIDENT_RULE.RECOVERED_AT.isNull(),
                        visibility.now().rules(INCIDENT_RULE.RULE_ID))
                .orderBy(INCIDENT_RULE.LAST_AT.desc())
                .limit(1)
                .fetchOptional()
                .orElseGet(() -> {
                    var none = new IncidentRuleRecord();
                    none.setReason("");
                    return none;
                });
    }

    private static ArrayList<String> problems(
            long latest, int awaitingApproval, long oldest, int holds, int failing, List<IncidentView> incidents) {
        var problems = new ArrayList<String>();
        if (latest > LATE.toSeconds())
            problems.add("A check is " + latest
                    + " s late. Check that all nodes run, and whether more checks may run at a time.");
        if (oldest > STUCK.toSeconds())
            problems.add("A message has been queued for " + oldest / 60
                    + " minutes. See the mail server replies in the outbox.");
        if (holds > 0) problems.add("Outgoing mail is held. See odd hold-mail.");
        if (awaitingApproval > 0)
            problems.add(
                    awaitingApproval + (awaitingApproval == 1 ? " check is" : " checks are") + " awaiting approval.");
        if (failing > 0) problems.add(failing + " background tasks keep failing. See the log.");
        for (var incident : incidents)
            problems.add(words(incident) + ": " + String.join(", ", incident.rules()) + ". " + incident.reason());
        return problems;
    }

    private static String words(IncidentView incident) {
        return switch (incident.kind()) {
            case SOURCE -> "Checks failing (source " + incident.name() + ")";
            case RULE -> "Checks failing";
            case AWAITING_APPROVAL -> "Awaiting approval";
            case NO_ROWS -> "No rows";
            case MAIL_UNDELIVERED, MAIL_UNCONFIRMED, MAIL_BLOCKED -> "Mail";
        };
    }

    private static List<String> mailProblems(int unconfirmed, List<UndeliveredMail> notDelivered) {
        var problems = new ArrayList<String>();
        if (unconfirmed > 0)
            problems.add((unconfirmed == 1 ? "A message" : unconfirmed + " messages")
                    + " may not have arrived; odd outbox --state unconfirmed lists "
                    + (unconfirmed == 1 ? "it." : "them."));
        for (var each : notDelivered)
            problems.add("The latest message of " + each.name() + " reached nobody: " + each.detail());
        return problems;
    }

    private static List<String> clockProblems(List<NodeView> nodes) {
        return nodes.stream()
                .filter(node -> !node.takesWork())
                .map(node -> "The clock of " + node.name() + " is " + Math.abs(node.clockAheadMillis()) / 1000 + " s "
                        + (node.clockAheadMillis() < 0 ? "behind" : "ahead of")
                        + " the database's, so it does no work. Set its clock.")
                .toList();
    }

    /** The latest message to each audience, without previews and resent messages. */
    private List<UndeliveredMail> notDelivered(Instant now) {
        var latest = select(MESSAGE.ID, DEFINITION.NAME, MESSAGE.CREATED_AT)
                .distinctOn(DEFINITION.ID, MESSAGE.AUDIENCE_ID)
                .from(MESSAGE)
                .join(DEFINITION)
                .on(DEFINITION.ID.eq(coalesce(MESSAGE.RULE_ID.coerce(DEFINITION.ID), MESSAGE.ROUND_UP_ID)))
                .where(
                        MESSAGE.CREATED_AT.gt(now.minus(DELIVERED_IN)),
                        MESSAGE.REPEAT_OF.isNull(),
                        visibility.now().messages())
                .orderBy(DEFINITION.ID, MESSAGE.AUDIENCE_ID, MESSAGE.CREATED_AT.desc())
                .asTable("latest");
        var id = latest.field(MESSAGE.ID);
        var words = select(max(MESSAGE_RECIPIENT.RESPONSE))
                .from(MESSAGE_RECIPIENT)
                .where(MESSAGE_RECIPIENT.MESSAGE_ID.eq(id));
        return db.select(latest.field(DEFINITION.NAME), latest.field(MESSAGE.CREATED_AT), field(words))
                .from(latest)
                .where(exists(selectOne().from(MESSAGE_RECIPIENT).where(MESSAGE_RECIPIENT.MESSAGE_ID.eq(id))))
                .and(notExists(selectOne()
                        .from(MESSAGE_RECIPIENT)
                        .where(
                                MESSAGE_RECIPIENT.MESSAGE_ID.eq(id),
                                MESSAGE_RECIPIENT.STATE.notIn(RecipientState.REJECTED, RecipientState.EXPIRED))))
                .orderBy(latest.field(DEFINITION.NAME))
                .fetch(row ->
                        new UndeliveredMail(row.value1(), row.value2(), row.value3() == null ? "" : row.value3()));
    }

    private List<NodeView> nodes(Instant now) {
        return db.selectFrom(NODE)
                .where(NODE.SEEN_AT.gt(now.minus(SEEN_WITHIN)))
                .orderBy(NODE.NAME)
                .fetch(row ->
                        new NodeView(row.getName(), row.getStartedAt(), row.getClockAheadMs(), row.getTakesWork()));
    }
}
