package dev.oddsentry.service.access;

import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** Slows down guessing: after ten wrong passwords for one log-in name within five minutes, that name waits them out. */
@Component
class LoginThrottle {
    private static final int MOST_FAILURES = 10;
    private static final Duration WINDOW = Duration.ofMinutes(5);

    private final Clock clock;
    private final Map<String, Failures> byLogin = new ConcurrentHashMap<>();

    LoginThrottle(Clock clock) {
        this.clock = clock;
    }

    private record Failures(int count, Instant since) {}

    /** @throws RefusedException while the name waits */
    void check(String login) {
        Failures failures = byLogin.get(login.toLowerCase(Locale.ROOT));
        if (failures != null && failures.count >= MOST_FAILURES && isRecent(failures)) {
            throw RefusedException.tooMany("Too many wrong passwords for this name; try again in a few minutes.");
        }
    }

    void failed(String login) {
        Instant now = clock.instant();
        byLogin.values().removeIf(failures -> !isRecent(failures));
        byLogin.merge(
                login.toLowerCase(Locale.ROOT),
                new Failures(1, now),
                (old, _) -> new Failures(old.count + 1, old.since));
    }

    void succeeded(String login) {
        byLogin.remove(login.toLowerCase(Locale.ROOT));
    }

    private boolean isRecent(Failures failures) {
        return failures.since.plus(WINDOW).isAfter(clock.instant());
    }
}
