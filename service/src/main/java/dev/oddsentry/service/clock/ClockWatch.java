package dev.oddsentry.service.clock;

import static dev.oddsentry.service.db.generated.Tables.NODE;

import dev.oddsentry.service.config.Node;
import dev.oddsentry.service.config.RepeatedWatch;
import io.micrometer.core.instrument.Gauge;
import io.micrometer.core.instrument.MeterRegistry;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import org.jooq.DSLContext;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;

/**
 * Compares this machine's clock with the database's, and writes down how this node is. A node whose clock is off takes no work: what it stores would be
 * right, but its log, its certificates and its sessions would not.
 */
@Component
public class ClockWatch extends RepeatedWatch {
    /** What machines with a time service never reach. */
    static final Duration MOST_APART = Duration.ofSeconds(5);

    private static final Logger LOG = LoggerFactory.getLogger(ClockWatch.class);
    private static final long LOOK_EVERY_MILLIS = 1000;
    private static final Duration FORGOTTEN_AFTER = Duration.ofDays(1);
    private static final Duration WRITE_EVERY = Duration.ofSeconds(5);

    private final DatabaseClock clock;
    private final DSLContext db;
    private final Node node;
    private final Instant startedAt;
    private Instant writtenAt = Instant.EPOCH;
    private volatile boolean right;

    ClockWatch(DatabaseClock clock, DSLContext db, Node node, MeterRegistry metrics) {
        super("clock", LOOK_EVERY_MILLIS);
        this.clock = clock;
        this.db = db;
        this.node = node;
        this.startedAt = clock.instant();
        this.right = isRight(clock.ahead());
        if (!right) warn(clock.ahead());
        Gauge.builder(
                        "oddsentry.clock.ahead.seconds",
                        clock,
                        each -> each.ahead().toMillis() / 1000.0)
                .description("how far this node's clock is ahead of the database's")
                .register(metrics);
    }

    /** Whether this machine's clock agrees with the database's, so that this node may take work. */
    public boolean isRight() {
        return right;
    }

    private static boolean isRight(Duration ahead) {
        return ahead.abs().compareTo(MOST_APART) <= 0;
    }

    private static void warn(Duration ahead) {
        LOG.error(
                "The clock of this machine is {} s {} the database's. This node takes no work until they agree within {} s: set its clock.",
                ahead.abs().toSeconds(),
                ahead.isNegative() ? "behind" : "ahead of",
                MOST_APART.toSeconds());
    }

    @Override
    protected void watchOnce() {
        try {
            var ahead = clock.look();
            boolean wasRight = right;
            right = isRight(ahead);
            if (wasRight && !right) warn(ahead);
            if (!wasRight && right) LOG.info("The clock of this machine agrees with the database's again.");
            if (wasRight != right || !writtenAt.plus(WRITE_EVERY).isAfter(clock.instant())) write(ahead);
        } catch (SQLException | DataAccessException | org.jooq.exception.DataAccessException unreachable) {
            LOG.debug("the clocks could not be compared", unreachable);
        }
    }

    private void write(Duration ahead) {
        writtenAt = clock.instant();
        // A process that was started again usually has another name.
        db.deleteFrom(NODE)
                .where(NODE.SEEN_AT.lt(writtenAt.minus(FORGOTTEN_AFTER)))
                .execute();
        db.insertInto(NODE)
                .set(NODE.NAME, node.name())
                .set(NODE.STARTED_AT, startedAt)
                .set(NODE.SEEN_AT, writtenAt)
                .set(NODE.CLOCK_AHEAD_MS, ahead.toMillis())
                .set(NODE.TAKES_WORK, right)
                .onConflict(NODE.NAME)
                .doUpdate()
                .setAllToExcluded()
                .execute();
    }

    /** Starts before the work does, and stops after it. */
    @Override
    public int getPhase() {
        return SmartLifecycle.DEFAULT_PHASE - 1;
    }
}
