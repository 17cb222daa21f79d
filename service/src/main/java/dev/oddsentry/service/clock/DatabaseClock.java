package dev.oddsentry.service.clock;

import java.sql.SQLException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.function.LongSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The database's time. Read from the database once in a while and carried on between readings by this machine's monotonic counter, so that a wrong or
 * jumping clock of this machine moves nothing that is stored or decided.
 */
public final class DatabaseClock extends Clock {
    private static final Logger LOG = LoggerFactory.getLogger(DatabaseClock.class);
    /** Carried on no longer than this without a new reading, as a machine that was suspended would do. */
    private static final long FRESH_NANOS = Duration.ofSeconds(10).toNanos();

    /** Asks the database. */
    public interface Source {
        Instant now() throws SQLException;
    }

    private final Source database;
    private final LongSupplier counter;
    private final Clock machine;
    private volatile Reading reading;

    /** @param ahead how far this machine's clock was ahead of the database's */
    private record Reading(Instant time, long counter, Duration ahead) {
        Instant carriedTo(long now) {
            return time.plusNanos(now - counter).truncatedTo(ChronoUnit.MICROS);
        }

        boolean isFresh(long now) {
            long passed = now - counter;
            return passed >= 0 && passed <= FRESH_NANOS;
        }
    }

    /** @throws IllegalStateException if the database does not answer */
    public DatabaseClock(Source database) {
        this(database, System::nanoTime, Clock.systemUTC());
    }

    /** @param counter nanoseconds that pass, from any beginning */
    DatabaseClock(Source database, LongSupplier counter, Clock machine) {
        this.database = database;
        this.counter = counter;
        this.machine = machine;
        try {
            this.reading = read();
        } catch (SQLException unreachable) {
            throw new IllegalStateException(
                    "The database did not return the time: " + unreachable.getMessage(), unreachable);
        }
    }

    /** Halfway between question and answer is when the database looked at its clock. */
    private Reading read() throws SQLException {
        long asked = counter.getAsLong();
        Instant time = database.now();
        long answered = counter.getAsLong();
        long middle = asked + (answered - asked) / 2;
        Instant machineThen = machine.instant().minusNanos(answered - middle);
        return new Reading(time, middle, Duration.between(time, machineThen));
    }

    /** Reads the database's time again. @return how far this machine's clock is ahead of it; negative if behind */
    public synchronized Duration look() throws SQLException {
        reading = read();
        return reading.ahead();
    }

    /** As it was at the last reading. */
    public Duration ahead() {
        return reading.ahead();
    }

    @Override
    public Instant instant() {
        var last = reading;
        long now = counter.getAsLong();
        return last.isFresh(now) ? last.carriedTo(now) : readAgain(last);
    }

    private synchronized Instant readAgain(Reading stale) {
        // Another thread may have read while this one waited.
        if (reading != stale && reading.isFresh(counter.getAsLong())) return reading.carriedTo(counter.getAsLong());
        try {
            reading = read();
        } catch (SQLException unreachable) {
            // Nothing can be stored now either; what is shown is the best that is known.
            LOG.debug("the database did not return the time", unreachable);
        }
        return reading.carriedTo(counter.getAsLong());
    }

    @Override
    public ZoneId getZone() {
        return ZoneOffset.UTC;
    }

    @Override
    public Clock withZone(ZoneId zone) {
        throw new UnsupportedOperationException("zones are passed, not taken from a clock");
    }
}
