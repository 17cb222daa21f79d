package dev.oddsentry.testkit;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.concurrent.atomic.AtomicReference;

/** A clock that runs as another one does, ahead of it by as much as a test says. Safe to read from any thread. */
public final class MovedClock extends Clock {
    private final AtomicReference<Duration> ahead = new AtomicReference<>(Duration.ZERO);
    private volatile Clock under = Clock.systemUTC();

    /** @return this clock, which runs as the other one from now on */
    public MovedClock over(Clock other) {
        under = other;
        return this;
    }

    public void advance(Duration by) {
        ahead.updateAndGet(before -> before.plus(by));
    }

    @Override
    public Instant instant() {
        return under.instant().plus(ahead.get());
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
