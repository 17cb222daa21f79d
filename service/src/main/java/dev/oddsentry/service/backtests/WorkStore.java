package dev.oddsentry.service.backtests;

import static dev.oddsentry.service.db.generated.Tables.LONG_WORK;

import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.LongWorkRecord;
import dev.oddsentry.service.ids.RuleId;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The rows of long work. Every move is a compare-and-set, so that of stopping and ending one wins. */
@Component
public class WorkStore {

    private final DSLContext db;
    private final Clock clock;

    WorkStore(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /** What the work is. */
    enum Kind {
        BACK_TEST,
        FILL_HISTORY
    }

    /** @param ruleId null for a rule that is not saved */
    void insert(UUID id, Kind kind, @Nullable RuleId ruleId, UUID by, Object ask) {
        db.insertInto(LONG_WORK)
                .set(LONG_WORK.ID, id)
                .set(LONG_WORK.KIND, kind.name())
                .set(LONG_WORK.RULE_ID, ruleId)
                .set(LONG_WORK.REQUESTED_BY, by)
                .set(LONG_WORK.REQUESTED_AT, clock.instant())
                .set(LONG_WORK.INPUT, Json.write(ask))
                .set(LONG_WORK.STATE, WorkState.WAITING)
                .execute();
    }

    /** @return false: it was stopped before it began, or has ended */
    boolean begin(UUID id, int steps) {
        return db.update(LONG_WORK)
                        .set(LONG_WORK.STATE, WorkState.RUNNING)
                        .set(LONG_WORK.STEPS, steps)
                        .set(LONG_WORK.STEPS_DONE, 0)
                        .where(LONG_WORK.ID.eq(id), LONG_WORK.STATE.in(WorkState.WAITING, WorkState.RUNNING))
                        .execute()
                == 1;
    }

    /** @return false: somebody has stopped it */
    boolean progress(UUID id, int done) {
        return db.update(LONG_WORK)
                        .set(LONG_WORK.STEPS_DONE, done)
                        .where(LONG_WORK.ID.eq(id), LONG_WORK.STATE.eq(WorkState.RUNNING))
                        .execute()
                == 1;
    }

    /** @return false: it had ended already */
    boolean end(UUID id, WorkState state, @Nullable Object result, @Nullable String reason) {
        return db.update(LONG_WORK)
                        .set(LONG_WORK.STATE, state)
                        .set(LONG_WORK.RESULT, result == null ? null : Json.write(result))
                        .set(LONG_WORK.REASON, reason)
                        .set(LONG_WORK.ENDED_AT, clock.instant())
                        .where(LONG_WORK.ID.eq(id), LONG_WORK.STATE.in(WorkState.WAITING, WorkState.RUNNING))
                        .execute()
                == 1;
    }

    public Optional<LongWorkRecord> find(UUID id) {
        return db.selectFrom(LONG_WORK).where(LONG_WORK.ID.eq(id)).fetchOptional();
    }

    public List<LongWorkRecord> ofRule(RuleId ruleId, int most) {
        return db.selectFrom(LONG_WORK)
                .where(LONG_WORK.RULE_ID.eq(ruleId))
                .orderBy(LONG_WORK.REQUESTED_AT.desc())
                .limit(most)
                .fetch();
    }
}
