package dev.oddsentry.service.queries;

import dev.oddsentry.service.config.RepeatedWatch;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.springframework.stereotype.Component;

/**
 * The queries that run on this node because somebody waits for them: previews, tries, back-tests. Twice a second those are cancelled that nobody waits for any
 * more, or that are over their time.
 */
@Component
public class HandRuns extends RepeatedWatch {
    private static final long LOOK_EVERY_MILLIS = 500;

    private final Clock clock;
    private final Map<UUID, Run> runs = new ConcurrentHashMap<>();

    HandRuns(Clock clock) {
        super("runs-by-hand", LOOK_EVERY_MILLIS);
        this.clock = clock;
    }

    private record Run(UUID id, Asker asker, String source, String query, Instant since, RunningQuery running) {}

    /** One that runs now. @param rows read so far */
    public record QueryRunView(UUID id, String login, String source, String query, Instant since, long rows) {}

    /** Runs {@code reads} as something that can be listed and stopped; what no asker waits for just runs. */
    <T> T watch(String source, String query, RunningQuery running, Function<RunningQuery, T> reads) {
        if (!Asker.CURRENT.isBound()) return reads.apply(running);
        var run = new Run(UUID.randomUUID(), Asker.CURRENT.get(), source, query, clock.instant(), running);
        runs.put(run.id, run);
        try {
            return reads.apply(running);
        } finally {
            runs.remove(run.id);
        }
    }

    public List<QueryRunView> all() {
        return runs.values().stream().map(HandRuns::view).toList();
    }

    private static QueryRunView view(Run run) {
        return new QueryRunView(run.id, run.asker.login(), run.source, run.query, run.since, run.running.rows());
    }

    public Optional<QueryRunView> find(UUID id) {
        return Optional.ofNullable(runs.get(id)).map(HandRuns::view);
    }

    /** @return {@code false} if it has ended already */
    public boolean stop(UUID id, String login) {
        var run = runs.get(id);
        if (run == null) return false;
        run.running.cancel("The query was stopped by " + login + ".");
        return true;
    }

    @Override
    protected void watchOnce() {
        runs.values().forEach(HandRuns::look);
    }

    private static void look(Run run) {
        run.running.cancelOverLimit();
        if (run.asker.isGone()) run.running.cancel("Nobody waits for this query any more, so it was cancelled.");
    }
}
