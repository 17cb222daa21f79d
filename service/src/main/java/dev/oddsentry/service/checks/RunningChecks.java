package dev.oddsentry.service.checks;

import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;

import dev.oddsentry.service.config.RepeatedWatch;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.queries.RunningQuery;
import dev.oddsentry.service.rules.CheckState;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.jooq.DSLContext;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;

/**
 * The checks whose queries run on this node. Twice a second it cancels those over their time limit and those that are no longer
 * running or have another attempt, whichever node ended them, and records the progress of the others.
 */
@Component
class RunningChecks extends RepeatedWatch {
    private static final Logger LOG = LoggerFactory.getLogger(RunningChecks.class);
    private static final long LOOK_EVERY_MILLIS = 500;

    private final DSLContext db;
    private final Map<CheckId, Running> running = new ConcurrentHashMap<>();

    RunningChecks(DSLContext db) {
        super("running-checks", LOOK_EVERY_MILLIS);
        this.db = db;
    }

    private static final class Running {
        private final int attempt;
        private final RunningQuery query;
        private long rowsTold = -1;

        Running(int attempt, RunningQuery query) {
            this.attempt = attempt;
            this.query = query;
        }
    }

    /** Runs {@code reads} with the query under watch. */
    <T> T watch(CheckId checkId, int attempt, RunningQuery query, Function<RunningQuery, T> reads) {
        var watched = new Running(attempt, query);
        running.put(checkId, watched);
        try {
            return reads.apply(query);
        } finally {
            running.remove(checkId, watched);
        }
    }

    /** How many queries of checks run on this node. */
    int count() {
        return running.size();
    }

    @Override
    protected void watchOnce() {
        try {
            lookOnce();
        } catch (DataAccessException | org.jooq.exception.DataAccessException unreachable) {
            LOG.warn("Running checks could not be looked at: {}", unreachable.getMessage());
        }
    }

    private void lookOnce() {
        running.values().forEach(each -> each.query.cancelOverLimit());
        Set<CheckId> ids = Set.copyOf(running.keySet());
        if (ids.isEmpty()) return;
        var attempts = db.select(RULE_CHECK.ID, RULE_CHECK.ATTEMPT)
                .from(RULE_CHECK)
                .where(RULE_CHECK.ID.in(ids), RULE_CHECK.STATE.eq(CheckState.RUNNING))
                .fetchMap(RULE_CHECK.ID, RULE_CHECK.ATTEMPT);
        for (CheckId id : ids) {
            var check = running.get(id);
            if (check == null) continue;
            Integer attempt = attempts.get(id);
            if (attempt == null || attempt != check.attempt)
                check.query.cancel("The check was ended elsewhere, so its query was cancelled.");
            else tell(id, check);
        }
    }

    private void tell(CheckId id, Running check) {
        long rows = check.query.rows();
        if (rows == check.rowsTold) return;
        check.rowsTold = rows;
        db.update(RULE_CHECK)
                .set(RULE_CHECK.ROWS_SO_FAR, rows)
                .where(
                        RULE_CHECK.ID.eq(id),
                        RULE_CHECK.STATE.eq(CheckState.RUNNING),
                        RULE_CHECK.ATTEMPT.eq(check.attempt))
                .execute();
    }

    /** Starts before the work does, and stops after it. */
    @Override
    public int getPhase() {
        return SmartLifecycle.DEFAULT_PHASE - 1;
    }
}
