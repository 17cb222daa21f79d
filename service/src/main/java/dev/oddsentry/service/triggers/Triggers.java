package dev.oddsentry.service.triggers;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.RULE;
import static dev.oddsentry.service.db.generated.Tables.RULE_AFTER;
import static dev.oddsentry.service.db.generated.Tables.RULE_EVENT;
import static dev.oddsentry.service.db.generated.Tables.RULE_TRIGGER;

import com.github.kagkarlsson.scheduler.SchedulerClient;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.TriggersDefinition;
import dev.oddsentry.core.definition.TriggersDefinition.Outcome;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.RuleTriggerRecord;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.rules.RuleState;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Which rules listen to what, and the triggers that no check has answered yet. Each has a durable task of its own, planned
 * in the transaction that writes it.
 */
@Component
public class Triggers {
    /** Its instance is the number of the trigger. */
    public static final TaskDescriptor<Void> TASK = TaskDescriptor.of("trigger");

    private final DSLContext db;
    private final SchedulerClient tasks;
    private final Clock clock;

    Triggers(DSLContext db, SchedulerClient tasks, Clock clock) {
        this.db = db;
        this.tasks = tasks;
        this.clock = clock;
    }

    /** Keeps what a saved rule listens to. Part of the caller's transaction. */
    public void listen(RuleId ruleId, TriggersDefinition to) {
        db.deleteFrom(RULE_EVENT).where(RULE_EVENT.RULE_ID.eq(ruleId)).execute();
        db.deleteFrom(RULE_AFTER).where(RULE_AFTER.RULE_ID.eq(ruleId)).execute();
        for (String event : Set.copyOf(to.events()))
            db.insertInto(RULE_EVENT)
                    .set(RULE_EVENT.RULE_ID, ruleId)
                    .set(RULE_EVENT.EVENT, event)
                    .execute();
        for (var after : to.after()) {
            RuleId parent = db.select(DEFINITION.ID)
                    .from(DEFINITION)
                    .where(DEFINITION.KIND.eq(Kind.RULE), DEFINITION.NAME.eq(after.rule()))
                    .fetchSingle(row -> new RuleId(row.value1()));
            String[] outcomes = after.on().stream().map(Outcome::name).sorted().toArray(String[]::new);
            db.insertInto(RULE_AFTER)
                    .set(RULE_AFTER.RULE_ID, ruleId)
                    .set(RULE_AFTER.PARENT_ID, parent)
                    .set(RULE_AFTER.OUTCOMES, outcomes)
                    .onConflict(RULE_AFTER.RULE_ID, RULE_AFTER.PARENT_ID)
                    .doUpdate()
                    .set(RULE_AFTER.OUTCOMES, outcomes)
                    .execute();
        }
    }

    /**
     * The rules on the way from a rule through those that it would follow back to itself, by name; empty if there is no such way. Two
     * saves that together would close a circle come one after the other.
     */
    public List<String> circle(RuleId ruleId, String name, List<String> follows) {
        if (follows.isEmpty()) return List.of();
        db.select(DSL.field("pg_advisory_xact_lock(hashtext('rule_after'))", Object.class))
                .fetch();
        var child = DEFINITION.as("child");
        var parent = DEFINITION.as("parent");
        Map<String, List<String>> parents = db.select(child.NAME, parent.NAME)
                .from(RULE_AFTER)
                .join(child)
                .on(child.ID.eq(RULE_AFTER.RULE_ID.coerce(DEFINITION.ID)))
                .join(parent)
                .on(parent.ID.eq(RULE_AFTER.PARENT_ID.coerce(DEFINITION.ID)))
                .where(RULE_AFTER.RULE_ID.ne(ruleId))
                .fetchGroups(child.NAME, parent.NAME);
        Map<String, String> reachedFrom = new HashMap<>();
        var next = new ArrayDeque<String>();
        for (String first : follows) if (reachedFrom.putIfAbsent(first, name) == null) next.add(first);
        while (!next.isEmpty()) {
            String at = next.remove();
            if (at.equals(name)) return way(name, reachedFrom);
            for (String above : parents.getOrDefault(at, List.of()))
                if (reachedFrom.putIfAbsent(above, at) == null) next.add(above);
        }
        return List.of();
    }

    private static List<String> way(String name, Map<String, String> reachedFrom) {
        var way = new ArrayDeque<String>();
        way.add(name);
        String at = name;
        do {
            at = reachedFrom.getOrDefault(at, name);
            way.addFirst(at);
        } while (!at.equals(name));
        return List.copyOf(way);
    }

    /** The active rules that use the event. */
    public List<RuleId> listeners(String event) {
        return db.select(RULE_EVENT.RULE_ID)
                .from(RULE_EVENT)
                .join(RULE)
                .on(RULE.ID.eq(RULE_EVENT.RULE_ID), RULE.STATE.eq(RuleState.ACTIVE))
                .where(RULE_EVENT.EVENT.eq(event))
                .orderBy(RULE_EVENT.RULE_ID)
                .fetch(RULE_EVENT.RULE_ID);
    }

    /** @param seen the rules whose events count */
    public List<String> events(Condition seen) {
        return db.selectDistinct(RULE_EVENT.EVENT)
                .from(RULE_EVENT)
                .where(seen)
                .orderBy(RULE_EVENT.EVENT)
                .fetch(RULE_EVENT.EVENT);
    }

    /** The trigger of a rule by an event; the same request key finds the same one. Part of the caller's transaction. */
    public void arrive(
            RuleId ruleId, Instant at, String event, Map<String, String> given, @Nullable String requestKey) {
        var number = db.insertInto(RULE_TRIGGER)
                .set(RULE_TRIGGER.RULE_ID, ruleId)
                .set(RULE_TRIGGER.SLOT, at)
                .set(RULE_TRIGGER.EVENT, event)
                .set(RULE_TRIGGER.EVENT_VALUES, Json.write(given))
                .set(RULE_TRIGGER.REQUEST_KEY, requestKey)
                .onConflictDoNothing()
                .returningResult(RULE_TRIGGER.ID)
                .fetchOptional();
        number.ifPresent(row -> plan(row.value1()));
    }

    /** The active rules that follow one whose check ended so get a trigger at its slot. Part of the caller's transaction. */
    public void follow(RuleId parentRule, CheckId parentCheck, Instant slot, Set<Outcome> outcomes) {
        String[] any = outcomes.stream().map(Outcome::name).toArray(String[]::new);
        var followers = db.select(RULE_AFTER.RULE_ID)
                .from(RULE_AFTER)
                .join(RULE)
                .on(RULE.ID.eq(RULE_AFTER.RULE_ID), RULE.STATE.eq(RuleState.ACTIVE))
                .where(RULE_AFTER.PARENT_ID.eq(parentRule), DSL.arrayOverlap(RULE_AFTER.OUTCOMES, any))
                .fetch(RULE_AFTER.RULE_ID);
        for (RuleId follower : followers) {
            db.insertInto(RULE_TRIGGER)
                    .set(RULE_TRIGGER.RULE_ID, follower)
                    .set(RULE_TRIGGER.SLOT, slot)
                    .set(RULE_TRIGGER.PARENT_ID, parentCheck)
                    .onConflictDoNothing()
                    .returningResult(RULE_TRIGGER.ID)
                    .fetchOptional()
                    .ifPresent(row -> plan(row.value1()));
        }
    }

    private void plan(long trigger) {
        tasks.schedule(TASK.instance(Long.toString(trigger)).build(), clock.instant());
    }

    public Optional<RuleTriggerRecord> find(long id) {
        return db.selectFrom(RULE_TRIGGER).where(RULE_TRIGGER.ID.eq(id)).fetchOptional();
    }

    /** True for the first of the occasions that a check answers, whose task runs it. */
    public boolean isHead(long id, CheckId checkId) {
        return !db.fetchExists(RULE_TRIGGER, RULE_TRIGGER.CHECK_ID.eq(checkId).and(RULE_TRIGGER.ID.lt(id)));
    }

    /** Those of a rule that no check has answered, the oldest first. */
    public List<RuleTriggerRecord> waiting(RuleId ruleId) {
        return db.selectFrom(RULE_TRIGGER)
                .where(RULE_TRIGGER.RULE_ID.eq(ruleId), RULE_TRIGGER.CHECK_ID.isNull())
                .orderBy(RULE_TRIGGER.ID)
                .fetch();
    }

    public void answer(List<Long> triggers, CheckId checkId) {
        db.update(RULE_TRIGGER)
                .set(RULE_TRIGGER.CHECK_ID, checkId)
                .where(RULE_TRIGGER.ID.in(new HashSet<>(triggers)))
                .execute();
    }

    /** A rule that is not active misses nothing. */
    public void drop(RuleId ruleId) {
        db.deleteFrom(RULE_TRIGGER)
                .where(RULE_TRIGGER.RULE_ID.eq(ruleId), RULE_TRIGGER.CHECK_ID.isNull())
                .execute();
    }
}
