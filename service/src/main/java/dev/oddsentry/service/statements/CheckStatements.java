package dev.oddsentry.service.statements;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static dev.oddsentry.service.db.generated.Tables.HANDLING;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.countDistinct;
import static org.jooq.impl.DSL.exists;
import static org.jooq.impl.DSL.falseCondition;
import static org.jooq.impl.DSL.max;
import static org.jooq.impl.DSL.min;
import static org.jooq.impl.DSL.selectOne;
import static org.jooq.impl.DSL.sum;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.extracts.mail.CheckStatement;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.layouts.Layouts;
import dev.oddsentry.service.memory.FindingEventKind;
import dev.oddsentry.service.outbox.RecipientState;
import dev.oddsentry.service.rules.CheckState;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.rules.RuleStates;
import java.time.Clock;
import java.time.Instant;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Calculates statements of checks out of the records; no query runs. */
@Component
public class CheckStatements {
    private static final Set<CheckState> BAD =
            Set.of(CheckState.FAILED, CheckState.PARTLY_FAILED, CheckState.STOPPED, CheckState.AWAITING_APPROVAL);
    private static final Set<RecipientState> UNDELIVERED = Set.of(
            RecipientState.REJECTED, RecipientState.EXPIRED, RecipientState.UNCONFIRMED, RecipientState.CANCELLED);
    private static final Set<RecipientState> WAITING =
            Set.of(RecipientState.QUEUED, RecipientState.SENDING, RecipientState.UNSURE);

    private final DSLContext db;
    private final RuleStates rules;
    private final Layouts layouts;
    private final Clock clock;

    CheckStatements(DSLContext db, RuleStates rules, Layouts layouts, Clock clock) {
        this.db = db;
        this.rules = rules;
        this.layouts = layouts;
        this.clock = clock;
    }

    /** @param to exclusive */
    public CheckStatement of(Current<RuleDefinition> rule, Instant from, Instant to) {
        var definition = rule.definition();
        var id = rule.ruleId();
        boolean plain = definition.isPlainReport();
        boolean paused = rules.of(id) == RuleState.PAUSED;
        return new CheckStatement(
                definition.title(),
                definition.zone(),
                from,
                to,
                paused,
                checks(id, from, to),
                reported(id, plain, from, to),
                plain ? CheckStatement.Unreported.NOTHING : unreported(rule, from, to),
                plain ? CheckStatement.Open.NOTHING : open(rule),
                CheckGaps.of(lastGoodBefore(id, from), ended(id, from, to), paused));
    }

    private static Condition within(Field<Instant> at, Instant from, Instant to) {
        return at.ge(from).and(at.lt(to));
    }

    private CheckStatement.Checks checks(RuleId rule, Instant from, Instant to) {
        var good = RULE_CHECK.STATE.in(CheckState.GOOD);
        var rows = RULE_CHECK.ROWS_READ;
        return db.select(
                        count().filterWhere(good),
                        sum(RULE_CHECK.SLOTS_COVERED.minus(1)).filterWhere(good),
                        count().filterWhere(
                                        RULE_CHECK.STATE.in(BAD), RULE_CHECK.STATE.ne(CheckState.AWAITING_APPROVAL)),
                        count().filterWhere(RULE_CHECK.STATE.eq(CheckState.AWAITING_APPROVAL)),
                        min(rows).filterWhere(good),
                        max(rows).filterWhere(good),
                        max(RULE_CHECK.UNKNOWN_ROWS).filterWhere(good),
                        max(RULE_CHECK.UNEVALUATED).filterWhere(good))
                .from(RULE_CHECK)
                .where(RULE_CHECK.RULE_ID.eq(rule), within(RULE_CHECK.SLOT, from, to))
                .fetchSingle(row -> new CheckStatement.Checks(
                        row.value1(),
                        orNone(row.value2()),
                        row.value3(),
                        row.value4(),
                        orNull(row.value5()),
                        orNull(row.value6()),
                        orNone(row.value7()),
                        orNone(row.value8())));
    }

    private static long orNone(@Nullable Number number) {
        return number == null ? 0 : number.longValue();
    }

    private static @Nullable Long orNull(@Nullable Number number) {
        return number == null ? null : number.longValue();
    }

    private List<CheckGaps.Ended> ended(RuleId rule, Instant from, Instant to) {
        return db.select(RULE_CHECK.SLOT, RULE_CHECK.STATE)
                .from(RULE_CHECK)
                .where(
                        RULE_CHECK.RULE_ID.eq(rule),
                        within(RULE_CHECK.SLOT, from, to),
                        RULE_CHECK.STATE.in(CheckState.GOOD).or(RULE_CHECK.STATE.in(BAD)))
                .orderBy(RULE_CHECK.SLOT, RULE_CHECK.STARTED_AT)
                .fetch(row -> new CheckGaps.Ended(row.value1(), CheckState.GOOD.contains(row.value2())));
    }

    private @Nullable Instant lastGoodBefore(RuleId rule, Instant from) {
        return db.select(max(RULE_CHECK.SLOT))
                .from(RULE_CHECK)
                .where(RULE_CHECK.RULE_ID.eq(rule), RULE_CHECK.SLOT.lt(from), RULE_CHECK.STATE.in(CheckState.GOOD))
                .fetchOne(0, Instant.class);
    }

    private CheckStatement.Reported reported(RuleId rule, boolean plain, Instant from, Instant to) {
        var ofRule = MESSAGE.RULE_ID.eq(rule).and(MESSAGE.PREVIEW_OF.isNull());
        long sent = db.fetchCount(MESSAGE, ofRule, within(MESSAGE.CREATED_AT, from, to));
        // What several audiences were told is one update.
        var told = db.select(
                        countDistinct(FINDING_EVENT.FINDING_ID, FINDING_EVENT.SLOT),
                        countDistinct(FINDING_EVENT.MESSAGE_ID))
                .from(FINDING_EVENT)
                .join(FINDING)
                .on(FINDING.ID.eq(FINDING_EVENT.FINDING_ID))
                .where(
                        FINDING.RULE_ID.eq(rule),
                        happened(FindingEventKind.REPORTED),
                        within(FINDING_EVENT.SLOT, from, to))
                .fetchSingle();
        return new CheckStatement.Reported(
                plain ? null : (long) told.value1(),
                plain ? sent : told.value2(),
                messages(ofRule, from, to, UNDELIVERED),
                messages(ofRule, from, to, WAITING));
    }

    private long messages(Condition ofRule, Instant from, Instant to, Set<RecipientState> states) {
        return db.fetchCount(
                MESSAGE,
                ofRule,
                within(MESSAGE.CREATED_AT, from, to),
                exists(selectOne()
                        .from(MESSAGE_RECIPIENT)
                        .where(MESSAGE_RECIPIENT.MESSAGE_ID.eq(MESSAGE.ID), MESSAGE_RECIPIENT.STATE.in(states))));
    }

    /** An opening and what became of it are in one row. */
    private static Condition happened(FindingEventKind kind) {
        return FINDING_EVENT.KIND.eq(kind).or(FINDING_EVENT.AT_OPENING.eq(kind));
    }

    /** A snooze whose date has passed is over, even if no check has ended it yet. */
    private Condition isMarked(Marks.Kind kind) {
        return exists(selectOne()
                .from(HANDLING)
                .where(
                        HANDLING.FINDING_ID.eq(FINDING.ID),
                        HANDLING.KIND.eq(kind),
                        HANDLING.ENDED_AT.isNull(),
                        HANDLING.UNTIL.isNull().or(HANDLING.UNTIL.gt(clock.instant()))));
    }

    private CheckStatement.Unreported unreported(Current<RuleDefinition> rule, Instant from, Instant to) {
        var id = rule.ruleId();
        var waits = FINDING.UNREPORTED.isTrue().and(FINDING.STATE.ne(FindingState.PENDING));
        var snoozed = isMarked(Marks.Kind.SNOOZE);
        var accepted = isMarked(Marks.Kind.ACCEPT);
        var lessSevere = lessSevere(rule.definition());
        var free = waits.andNot(snoozed).andNot(accepted);
        long known = db.fetchCount(
                FINDING_EVENT.join(FINDING).on(FINDING.ID.eq(FINDING_EVENT.FINDING_ID)),
                FINDING.RULE_ID.eq(id),
                happened(FindingEventKind.TREATED_AS_KNOWN),
                within(FINDING_EVENT.SLOT, from, to));
        return db.select(
                        count().filterWhere(waits.and(snoozed)),
                        count().filterWhere(waits.andNot(snoozed).and(accepted)),
                        count().filterWhere(free.and(lessSevere)),
                        count().filterWhere(free.andNot(lessSevere)),
                        count().filterWhere(FINDING.STATE.eq(FindingState.PENDING)))
                .from(FINDING)
                .where(FINDING.RULE_ID.eq(id), waits.or(FINDING.STATE.eq(FindingState.PENDING)))
                .fetchSingle(row -> new CheckStatement.Unreported(
                        row.value1(), row.value2(), row.value3(), row.value4(), row.value5(), known));
    }

    private static Condition lessSevere(RuleDefinition rule) {
        var from = rule.delivery().options().sendFrom();
        if (from == null) return falseCondition();
        return FINDING.SEVERITY.in(
                Arrays.stream(Severity.values()).filter(from::isWorseThan).toList());
    }

    private CheckStatement.Open open(Current<RuleDefinition> rule) {
        var rows = db.select(
                        FINDING.SEVERITY,
                        count(),
                        count().filterWhere(isMarked(Marks.Kind.SNOOZE)),
                        count().filterWhere(isMarked(Marks.Kind.ACCEPT)))
                .from(FINDING)
                .where(FINDING.RULE_ID.eq(rule.ruleId()), FINDING.STATE.eq(FindingState.OPEN))
                .groupBy(FINDING.SEVERITY)
                .fetch();
        var bySeverity = new EnumMap<Severity, Long>(Severity.class);
        rows.forEach(row -> bySeverity.put(row.value1(), (long) row.value2()));
        return new CheckStatement.Open(
                Map.copyOf(bySeverity),
                layouts.resolved(rule.definition()).delivery().layout().severities(),
                rows.stream().mapToLong(row -> row.value3()).sum(),
                rows.stream().mapToLong(row -> row.value4()).sum());
    }
}
