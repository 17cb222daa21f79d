package dev.oddsentry.service.roundups;

import static dev.oddsentry.service.db.generated.Tables.ROUND_UP;

import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.memory.RoundUpMemory;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** The state of each round-up: whether it is paused, its next and its last time. */
@Component
public class RoundUps {
    private final DSLContext db;
    private final Clock clock;
    private final DefinitionStore definitions;
    private final Schedules schedules;
    private final RoundUpMemory memory;
    private final RoundUpTasks tasks;
    private final Audit audit;

    RoundUps(
            DSLContext db,
            Clock clock,
            DefinitionStore definitions,
            Schedules schedules,
            RoundUpMemory memory,
            RoundUpTasks tasks,
            Audit audit) {
        this.db = db;
        this.clock = clock;
        this.definitions = definitions;
        this.schedules = schedules;
        this.memory = memory;
        this.tasks = tasks;
        this.audit = audit;
    }

    /** @param now by the database's clock, which all nodes share */
    public record Standing(
            boolean paused,
            @Nullable Instant nextSlot,
            @Nullable Instant lastSlot,
            Instant now) {
        Optional<Instant> due() {
            return paused || nextSlot == null || nextSlot.isAfter(now) ? Optional.empty() : Optional.of(nextSlot);
        }
    }

    /** It takes what its rules have found so far as known, and waits for its next time. Part of the save's transaction. */
    public void saved(UUID id, RoundUpDefinition roundUp) {
        db.insertInto(ROUND_UP).set(ROUND_UP.ID, id).onConflictDoNothing().execute();
        var rules = roundUp.rules().stream()
                .map(name -> definitions.rule(name).orElseThrow().ruleId())
                .toList();
        rules.forEach(rule -> memory.join(id, rule));
        memory.leaveAllBut(id, rules);
        if (!standing(id).paused()) wait(id, roundUp);
    }

    private void wait(UUID id, RoundUpDefinition roundUp) {
        Instant next = schedules
                .of(roundUp.schedule(), roundUp.zone())
                .nextAfter(clock.instant())
                .orElse(null);
        moveTo(id, next);
        tasks.planAt(id, next);
    }

    private void moveTo(UUID id, @Nullable Instant next) {
        db.update(ROUND_UP)
                .set(ROUND_UP.NEXT_SLOT, next)
                .where(ROUND_UP.ID.eq(id))
                .execute();
    }

    /** Locked until the transaction ends, so that no update is reported twice. */
    Standing lock(UUID id) {
        db.selectFrom(ROUND_UP).where(ROUND_UP.ID.eq(id)).forUpdate().fetchSingle();
        return standing(id);
    }

    public Standing standing(UUID id) {
        return db.select(ROUND_UP.PAUSED, ROUND_UP.NEXT_SLOT, ROUND_UP.LAST_SLOT)
                .from(ROUND_UP)
                .where(ROUND_UP.ID.eq(id))
                .fetchSingle(row -> new Standing(row.value1(), row.value2(), row.value3(), clock.instant()));
    }

    void goneThrough(UUID id, Instant slot) {
        db.update(ROUND_UP)
                .set(ROUND_UP.LAST_SLOT, slot)
                .where(ROUND_UP.ID.eq(id))
                .execute();
    }

    void waitFor(UUID id, @Nullable Instant next) {
        moveTo(id, next);
    }

    @Transactional
    public void pause(Person by, UUID id, String name) {
        if (lock(id).paused()) throw RefusedException.conflict("The round-up is paused already.");
        db.update(ROUND_UP)
                .set(ROUND_UP.PAUSED, true)
                .setNull(ROUND_UP.NEXT_SLOT)
                .where(ROUND_UP.ID.eq(id))
                .execute();
        audit.record(db, by.id(), AuditAct.PAUSE_ROUND_UP, name, null);
    }

    /** What differs by then is an update at its next time. */
    @Transactional
    public void resume(Person by, UUID id, RoundUpDefinition roundUp) {
        if (!lock(id).paused()) throw RefusedException.conflict("The round-up is not paused.");
        db.update(ROUND_UP)
                .set(ROUND_UP.PAUSED, false)
                .where(ROUND_UP.ID.eq(id))
                .execute();
        wait(id, roundUp);
        audit.record(db, by.id(), AuditAct.RESUME_ROUND_UP, roundUp.name(), null);
    }
}
