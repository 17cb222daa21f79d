package dev.oddsentry.service.mail;

import java.time.Duration;
import java.util.function.LongSupplier;

/**
 * Leaves a server alone that fails: twice as long after each failure. When the time is over, one conversation tries it; the others wait for how that ends.
 * Also keeps the number of conversations at once, so that one server that hangs does not take the workers of all.
 */
final class ServerRest {
    private static final Duration LONGEST = Duration.ofMinutes(5);
    private static final Duration WHILE_TRIED = Duration.ofSeconds(1);
    private static final Duration WHILE_FULL = Duration.ofMillis(200);

    private final Duration first;
    private final int mostAtOnce;
    private final LongSupplier nanos;
    private int talking;
    private int failures;
    private long restsUntil;

    ServerRest(Duration first, int mostAtOnce, LongSupplier nanos) {
        this.first = first;
        this.mostAtOnce = mostAtOnce;
        this.nanos = nanos;
    }

    /** Whether a conversation may begin; if so, {@link #ended} must be called after it. */
    synchronized boolean begin() {
        if (!closedFor().isZero()) return false;
        talking++;
        return true;
    }

    /** For how long no conversation may begin; zero if one may. */
    synchronized Duration closedFor() {
        if (talking >= mostAtOnce) return WHILE_FULL;
        if (failures == 0) return Duration.ZERO;
        long left = restsUntil - nanos.getAsLong();
        if (left > 0) return Duration.ofNanos(left);
        return talking > 0 ? WHILE_TRIED : Duration.ZERO;
    }

    /** @param answered whether the server answered to the end, whatever it said */
    synchronized void ended(boolean answered) {
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
        return pause.compareTo(LONGEST) > 0 ? LONGEST : pause;
    }
}
