package dev.oddsentry.service.work;

import static dev.oddsentry.service.db.generated.Tables.RULE;
import static dev.oddsentry.service.db.generated.Tables.SCHEDULED_TASKS;
import static dev.oddsentry.service.db.generated.Tables.SOURCE;

import dev.oddsentry.service.config.RepeatedWatch;
import dev.oddsentry.service.outbox.SendTasks;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.schedules.SlotTasks;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Finds what would not wake in time, whatever put it to sleep: rules whose task wakes later than their next slot, or has none, and messages likewise. Looks
 * at the start and once a minute.
 */
@Component
class WakeUps extends RepeatedWatch {
    private static final Logger LOG = LoggerFactory.getLogger(WakeUps.class);
    private static final long LOOK_EVERY_MILLIS = Duration.ofMinutes(1).toMillis();
    /** Beside the spread of the source's checks. */
    private static final Duration LATE = Duration.ofSeconds(30);

    private final DSLContext db;
    private final SlotTasks tasks;
    private final SendTasks handOvers;
    private final Clock clock;

    WakeUps(DSLContext db, SlotTasks tasks, SendTasks handOvers, Clock clock) {
        super("wake-ups", LOOK_EVERY_MILLIS);
        this.db = db;
        this.tasks = tasks;
        this.handOvers = handOvers;
        this.clock = clock;
    }

    @Override
    public void start() {
        watchOnce();
        super.start();
    }

    @Override
    protected void watchOnce() {
        try {
            int rules = mendRules();
            int messages = handOvers.mend();
            if (rules + messages > 0)
                LOG.warn("{} rules and {} messages would have woken too late; they wake in time now.", rules, messages);
        } catch (RuntimeException unreachable) {
            // The scheduler's own exceptions have no name in common with those of the database; the next look may do
            // better.
            LOG.debug("sleeping work could not be looked for", unreachable);
        }
    }

    private int mendRules() {
        int spread = db.select(DSL.coalesce(DSL.max(SOURCE.SPREAD_SECONDS), 0))
                .from(SOURCE)
                .fetchSingle()
                .value1();
        Instant now = clock.instant();
        var late = LATE.plusSeconds(spread);
        var asleep = db
                .select(RULE.ID, RULE.NEXT_SLOT, SCHEDULED_TASKS.EXECUTION_TIME)
                .from(RULE)
                .leftJoin(SCHEDULED_TASKS)
                .on(SCHEDULED_TASKS
                        .TASK_NAME
                        .eq(SlotTasks.SLOT.getTaskName())
                        .and(SCHEDULED_TASKS.TASK_INSTANCE.eq(RULE.ID.cast(String.class))))
                .where(RULE.STATE.eq(RuleState.ACTIVE), RULE.NEXT_SLOT.isNotNull())
                .and(SCHEDULED_TASKS
                        .TASK_NAME
                        .isNull()
                        .or(SCHEDULED_TASKS.PICKED.isFalse().and(SCHEDULED_TASKS.EXECUTION_TIME.gt(RULE.NEXT_SLOT))))
                .fetch()
                .stream()
                .filter(row -> row.value3() == null
                        || row.value3().isAfter(later(row.value2(), now).plus(late)))
                .toList();
        asleep.forEach(rule -> tasks.planAt(rule.value1(), rule.value2()));
        return asleep.size();
    }

    private static Instant later(Instant one, Instant other) {
        return one.isAfter(other) ? one : other;
    }
}
