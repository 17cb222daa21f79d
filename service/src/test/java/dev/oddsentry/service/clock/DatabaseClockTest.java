package dev.oddsentry.service.clock;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.testkit.SettableClock;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

/** The database's time, whatever this machine's clock says. */
class DatabaseClockTest {
    private static final Instant NOON = Instant.parse("2026-05-04T12:00:00Z");
    private static final Duration THREE_HOURS = Duration.ofHours(3);

    private final SettableClock database = new SettableClock(NOON);
    private final SettableClock machine = new SettableClock(NOON);
    private final AtomicLong counter = new AtomicLong(-5);
    private boolean reachable = true;
    private final DatabaseClock clock = new DatabaseClock(this::ask, counter::get, machine);

    private Instant ask() throws SQLException {
        if (!reachable) throw new SQLException("gone");
        return database.instant();
    }

    private void pass(Duration time) {
        database.advance(time);
        machine.advance(time);
        counter.addAndGet(time.toNanos());
    }

    @Test
    void itGoesOnBetweenReadings() {
        pass(Duration.ofMillis(1500));
        assertThat(clock.instant()).isEqualTo(NOON.plusMillis(1500));
    }

    @Test
    void aMachineThatJumpsMovesNothingAndIsSeen() throws SQLException {
        machine.advance(THREE_HOURS);
        assertThat(clock.instant()).isEqualTo(NOON);
        assertThat(clock.look()).isEqualTo(THREE_HOURS);
        assertThat(clock.instant()).isEqualTo(NOON);
        machine.advance(THREE_HOURS.multipliedBy(-2));
        assertThat(clock.look()).isEqualTo(THREE_HOURS.negated());
        assertThat(clock.instant()).isEqualTo(NOON);
    }

    @Test
    void aCounterThatJumpsIsNotBelieved() {
        counter.addAndGet(THREE_HOURS.toNanos());
        assertThat(clock.instant()).isEqualTo(NOON);
        counter.addAndGet(-2 * THREE_HOURS.toNanos());
        assertThat(clock.instant()).isEqualTo(NOON);
    }

    @Test
    void itGoesOnWhileTheDatabaseIsAway() {
        reachable = false;
        pass(Duration.ofMinutes(2));
        assertThat(clock.instant()).isEqualTo(NOON.plus(Duration.ofMinutes(2)));
        reachable = true;
        database.advance(Duration.ofSeconds(7));
        assertThat(clock.instant()).isEqualTo(NOON.plus(Duration.ofSeconds(127)));
    }
}
