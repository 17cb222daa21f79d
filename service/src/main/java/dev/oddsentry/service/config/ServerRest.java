package dev.oddsentry.service.config;

import java.time.Duration;
import java.util.function.LongSupplier;

/**
 * Leaves a server alone that fails: twice as long after each failure. When the time is over, one conversation tries it; the others wait for how that ends.
 * Also keeps the number of conversations at once, so that one server that hangs does not take the workers of all.
 */
public final class ServerRest {
    private static final Duration WHILE_TRIED = Duration.ofSeconds(1);
    private static final Duration WHILE_FULL = Duration.ofMillis(200);

    private final Duration first;
    private final Duration longest;
    private final int mostAtOnce;
    private final LongSupplier nanos;
    private int talking;
    private int failures;
    private long restsUntil;

    /**
     * @param first the pause after a first failure
     * @param longest the pause that no other is longer than
     */
    public ServerRest(Duration first, Duration longest, int mostAtOnce, LongSupplier nanos) {
        this.first = first;
        this.longest = longest;
        this.mostAtOnce = mostAtOnce;
        this.nanos = nanos;
    }

    /** Whether a conversation may begin; if so, {@link #ended} must be called after it. */
    public synchronized boolean begin() {
        if (!closedFor().isZero()) return false;
        beginAnyway();
        return true;
    }

    /** A conversation begins in any case, as where a person asks for it; {@link #ended} must be called after it. */
    public synchronized void beginAnyway() {
        talking++;
    }

    /** For how long no conversation may begin; zero if one may. */
    public synchronized Duration closedFor() {
        if (talking >= mostAtOnce) return WHILE_FULL;
        if (failures == 0) return Duration.ZERO;
        long left = restsUntil - nanos.getAsLong();
        if (left > 0) return Duration.ofNanos(left);
        return talking > 0 ? WHILE_TRIED : Duration.ZERO;
    }

    /** @param answered whether the server answered to the end, whatever it said */
    public synchronized void ended(boolean answered) {
        talking--;
        if (answered) {
            failures = 0;
            return;
        }
        long now = nanos.getAsLong();
        // Several that were begun together fail of one cause.
        if (failures > 0 && restsUntil - now > 0) return;
        failures++;
        restsUntil = now + pause().toNanos();
    }

    private Duration pause() {
        Duration pause = first.multipliedBy(1L << Math.min(10, failures - 1));
        return pause.compareTo(longest) > 0 ? longest : pause;
    }
}
