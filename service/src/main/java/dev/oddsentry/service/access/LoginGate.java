package dev.oddsentry.service.access;

import dev.oddsentry.service.web.RefusedException;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;

/**
 * Slows guessing down without locking anybody out. After a few wrong passwords the guesses for one name take turns, a pause apart, and so do those from one
 * address for whatever names. A turn is taken before the password is looked at, so that guesses sent at the same time count too. A few may wait for
 * their turn; more are refused at once. The right password ends the pauses of its name. State is this node's own.
 */
@Component
public class LoginGate {
    private static final int FREE_FOR_NAME = 4;
    private static final int FREE_FOR_ADDRESS = 30;
    private static final Duration LONGEST_PAUSE = Duration.ofSeconds(1);
    private static final Duration LONGEST_WAIT = Duration.ofSeconds(6);
    private static final Duration FORGET_AFTER = Duration.ofMinutes(15);
    private static final int MOST_REMEMBERED = 20_000;

    private final Map<String, Turns> byName = new ConcurrentHashMap<>();
    private final Map<String, Turns> byAddress = new ConcurrentHashMap<>();

    /** Who comes next after how long, for one name or one address. */
    private static final class Turns {
        private final int free;
        private int guesses;
        private long nextNanos = System.nanoTime();
        private long lastNanos = nextNanos;

        Turns(int free) {
            this.free = free;
        }

        /** @return nanoseconds to wait; negative if too many wait already */
        synchronized long take() {
            long now = System.nanoTime();
            if (now - lastNanos > FORGET_AFTER.toNanos()) guesses = 0;
            long turn = Math.max(now, nextNanos);
            if (turn - now > LONGEST_WAIT.toNanos()) return -1;
            lastNanos = now;
            guesses++;
            nextNanos = turn + pauseNanos();
            return turn - now;
        }

        /** Nothing while few were wrong, then doubling from an eighth of a second. */
        private long pauseNanos() {
            if (guesses < free) return 0;
            return Math.min(LONGEST_PAUSE.toNanos(), 125_000_000L << Math.min(10, guesses - free));
        }

        synchronized void succeeded() {
            guesses = 0;
            nextNanos = System.nanoTime();
        }

        /** A right password is no guess, but does not make up for those that were. */
        synchronized void wasNoGuess() {
            guesses = Math.max(0, guesses - 1);
        }

        synchronized boolean isForgotten() {
            return System.nanoTime() - lastNanos > FORGET_AFTER.toNanos();
        }
    }

    /**
     * Looks at a password when it is its turn.
     *
     * @param device what stands for a browser that the person has used before; guesses from elsewhere do not slow it down. Empty if none is known
     * @return what {@code authenticate} returns
     * @throws RefusedException if too many guesses wait
     */
    public <T> Optional<T> guess(
            String login, String address, Optional<String> device, Supplier<Optional<T>> authenticate) {
        var turns = device.map(known -> List.of(turns(byName, "device " + known, FREE_FOR_NAME)))
                .orElseGet(() -> List.of(
                        turns(byName, "name " + login.strip().toLowerCase(Locale.ROOT), FREE_FOR_NAME),
                        turns(byAddress, address, FREE_FOR_ADDRESS)));
        long wait = 0;
        for (var each : turns) {
            long own = each.take();
            if (own < 0) throw RefusedException.tooMany("Too many attempts to log in. Try again in a few seconds.");
            wait = Math.max(wait, own);
        }
        sleep(wait);
        var found = authenticate.get();
        if (found.isPresent()) {
            turns.getFirst().succeeded();
            turns.getLast().wasNoGuess();
        }
        return found;
    }

    private static Turns turns(Map<String, Turns> known, String key, int free) {
        if (known.size() >= MOST_REMEMBERED) known.values().removeIf(Turns::isForgotten);
        if (known.size() >= MOST_REMEMBERED && !known.containsKey(key))
            throw RefusedException.tooMany("Too many attempts to log in. Try again in a few minutes.");
        return known.computeIfAbsent(key, _ -> new Turns(free));
    }

    private static void sleep(long nanos) {
        try {
            Thread.sleep(Duration.ofNanos(nanos));
        } catch (InterruptedException stopping) {
            Thread.currentThread().interrupt();
            throw RefusedException.tooMany("The service is shutting down.");
        }
    }
}
