package dev.oddsentry.service.rules;

import static dev.oddsentry.service.db.generated.Tables.AUDIENCE;
import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.RULE;
import static org.jooq.Records.mapping;

import dev.oddsentry.core.definition.DeliveryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.memory.PendingEffect.ReportChoice;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.incidents.Incidents;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.schedules.SlotTasks;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Instant;
import java.util.Locale;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Moves rules between draft, active and paused, and keeps their next slot. */
@Component
public class RuleStates {
    private final DSLContext db;
    private final Clock clock;
    private final Audit audit;
    private final Incidents incidents;
    private final SlotTasks tasks;
    private final Schedules schedules;
    private final RulePasswords passwords;

    RuleStates(
            DSLContext db,
            Clock clock,
            Audit audit,
            SlotTasks tasks,
            Schedules schedules,
            Incidents incidents,
            RulePasswords passwords) {
        this.incidents = incidents;
        this.passwords = passwords;
        this.db = db;
        this.clock = clock;
        this.audit = audit;
        this.tasks = tasks;
        this.schedules = schedules;
    }

    public void createDraft(RuleId id) {
        db.insertInto(RULE).set(RULE.ID, id).set(RULE.STATE, RuleState.DRAFT).execute();
    }

    /** How many good checks of the rule count for holds, misses and guards. */
    public long goodSlots(RuleId id) {
        return db.select(RULE.GOOD_SLOTS)
                .from(RULE)
                .where(RULE.ID.eq(id))
                .fetchSingle()
                .value1();
    }

    /**
     * @param report what its next good check reports of the findings that exist
     * @throws RefusedException if something is missing that an active rule needs
     */
    @Transactional
    public void activate(Person by, RuleId id, RuleDefinition rule, ReportChoice report) {
        refuseUnready(id, rule);
        refuseRetired(id, rule);
        Instant next = schedules.of(rule).nextAfter(clock.instant()).orElse(null);
        int moved = db.update(RULE)
                .set(RULE.STATE, RuleState.ACTIVE)
                .set(RULE.NEXT_SLOT, next)
                .where(RULE.ID.eq(id), RULE.STATE.ne(RuleState.ACTIVE))
                .execute();
        if (moved == 0) throw RefusedException.conflict("The rule is active already.");
        owe(id, PendingEffect.of(report));
        tasks.planAt(id, next);
        audit.record(
                db,
                by.id(),
                AuditAct.ACTIVATE_RULE,
                rule.name(),
                report == ReportChoice.NONE ? null : report.name().toLowerCase(Locale.ROOT));
    }

    /** Who would retire it waits until the transaction ends, and finds it active. */
    private void refuseRetired(RuleId id, RuleDefinition rule) {
        var inUse = db.selectOne()
                .from(DEFINITION)
                .where(DEFINITION.ID.eq(id.value()), DEFINITION.RETIRED_AT.isNull())
                .forShare()
                .fetch();
        if (inUse.isEmpty()) throw RefusedException.conflict("\"" + rule.name() + "\" is retired. Restore it first.");
    }

    /** @throws RefusedException if it has no recipients, or its files could not be encrypted */
    public void refuseUnready(RuleId id, RuleDefinition rule) {
        boolean encrypts = rule.delivery().packing() == DeliveryDefinition.Packing.ENCRYPTED;
        if (encrypts && passwords.of(id).isEmpty())
            throw RefusedException.invalid(
                    "The rule encrypts its attachments but has no password. Set one with odd set-file-password "
                            + rule.name() + " or on the rule's page, before it becomes active.");
        if (rule.delivery().hasRecipients()
                || db.fetchExists(AUDIENCE, AUDIENCE.RULE_ID.eq(id), AUDIENCE.ROUND_UP_ID.isNotNull())) return;
        throw RefusedException.invalid(
                "The rule has no recipients. Add one under delivery: to:, or add the rule to a round-up, before you activate it.");
    }

    public RuleState of(RuleId id) {
        return db.select(RULE.STATE)
                .from(RULE)
                .where(RULE.ID.eq(id))
                .fetchSingle()
                .value1();
    }

    /**
     * The next successful check applies this, together with what is pending already. A check that runs now was evaluated without
     * it, and becomes stale. Part of the caller's transaction.
     */
    public void owe(RuleId id, PendingEffect owed) {
        if (owed.equals(PendingEffect.NONE)) return;
        var before = db.select(RULE.PENDING_EDIT, RULE.PENDING_REPORT)
                .from(RULE)
                .where(RULE.ID.eq(id))
                .forUpdate()
                .fetchSingle(mapping(PendingEffect::new));
        var both = before.and(owed);
        db.update(RULE)
                .set(RULE.PENDING_EDIT, both.edit())
                .set(RULE.PENDING_REPORT, both.report())
                .set(RULE.MEMORY_EPOCH, RULE.MEMORY_EPOCH.plus(1))
                .where(RULE.ID.eq(id))
                .execute();
    }

    /** True once it had a good check, so that there is something that an edit may move. */
    public boolean remembers(RuleId id) {
        return db.fetchExists(RULE, RULE.ID.eq(id).and(RULE.LAST_GOOD_SLOT.isNotNull()));
    }

    @Transactional
    public void pause(Person by, RuleId id, RuleDefinition rule) {
        int moved = db.update(RULE)
                .set(RULE.STATE, RuleState.PAUSED)
                .setNull(RULE.NEXT_SLOT)
                .where(RULE.ID.eq(id), RULE.STATE.eq(RuleState.ACTIVE))
                .execute();
        if (moved == 0) throw RefusedException.conflict("Only an active rule can be paused.");
        // What is not checked no longer fails.
        incidents.well(id);
        audit.record(db, by.id(), AuditAct.PAUSE_RULE, rule.name(), null);
    }

    /** A save may have changed the schedule of an active rule. Part of the save's transaction. */
    public void scheduleChanged(RuleId id, RuleDefinition rule) {
        Instant next = schedules.of(rule).nextAfter(clock.instant()).orElse(null);
        int moved = db.update(RULE)
                .set(RULE.NEXT_SLOT, next)
                .where(RULE.ID.eq(id), RULE.STATE.eq(RuleState.ACTIVE))
                .execute();
        if (moved == 1) tasks.planAt(id, next);
    }

    /**
     * The slot that an active rule waits for; empty if it is not active or its schedule has ended. It waits for a person who is changing
     * the rule just now, since a slot task that is being executed cannot be moved and must not plan from what was.
     */
    public Optional<NextSlot> nextSlot(RuleId id) {
        return db.select(RULE.NEXT_SLOT)
                .from(RULE)
                .where(RULE.ID.eq(id), RULE.STATE.eq(RuleState.ACTIVE), RULE.NEXT_SLOT.isNotNull())
                .forShare()
                .fetchOptional(row -> new NextSlot(row.value1(), clock.instant()));
    }

    /** @param now by the database's clock, which all nodes share */
    public record NextSlot(Instant slot, Instant now) {
        public boolean isDue() {
            return !slot.isAfter(now);
        }
    }

    /** @return false: the rule's next slot is no longer {@code done}, since someone changed its schedule meanwhile */
    public boolean moveOn(RuleId id, Instant done, @Nullable Instant next) {
        return db.update(RULE)
                        .set(RULE.NEXT_SLOT, next)
                        .where(RULE.ID.eq(id), RULE.NEXT_SLOT.eq(done))
                        .execute()
                == 1;
    }
}
