package dev.oddsentry.testkit;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.concurrent.atomic.AtomicReference;

/** A clock that stands still until a test moves it. Safe to read from any thread. */
public final class SettableClock extends Clock {
    private final AtomicReference<Instant> now;

    public SettableClock(Instant now) {
        this.now = new AtomicReference<>(now);
    }

    public void set(Instant instant) {
        now.set(instant);
    }

    public void advance(Duration by) {
        now.updateAndGet(instant -> instant.plus(by));
    }

    @Override
    public Instant instant() {
        return now.get();
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
