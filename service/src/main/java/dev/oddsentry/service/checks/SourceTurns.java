package dev.oddsentry.service.checks;

import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.sources.Lane;
import dev.oddsentry.service.sources.Source;
import dev.oddsentry.service.sources.SourcePools;
import dev.oddsentry.service.sources.Sources;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;

/**
 * Keeps a slow source from taking all of this node's workers: no more checks of one source run at once than it has connections for checks, nor
 * more than three quarters of the workers. Who gets no turn leaves its worker to others and asks again.
 */
@Component
public class SourceTurns {
    private final DefinitionStore definitions;
    private final Sources sources;
    private final SourcePools pools;
    private final int mostOfWorkers;
    private final Map<String, AtomicInteger> taken = new ConcurrentHashMap<>();

    SourceTurns(DefinitionStore definitions, Sources sources, SourcePools pools, Settings settings) {
        this.definitions = definitions;
        this.sources = sources;
        this.pools = pools;
        this.mostOfWorkers = Math.max(1, settings.work().atOnce() * 3 / 4);
    }

    private Optional<Source> sourceOf(RuleId ruleId) {
        return definitions
                .rule(ruleId)
                .flatMap(rule -> definitions.query(rule.definition().query()))
                .flatMap(query -> sources.find(query.definition().source()));
    }

    /** How long after its slots a rule's checks begin, so that those of one source do not all begin at once. */
    public Duration delay(RuleId ruleId) {
        long spread = sourceOf(ruleId).map(source -> source.spread().toMillis()).orElse(0L);
        return spread == 0
                ? Duration.ZERO
                : Duration.ofMillis(Math.floorMod(ruleId.value().getLeastSignificantBits(), spread));
    }

    /** For how long a check that nobody waits for should leave the rule's source alone, since it could not be reached; zero if it need not. */
    public Duration rest(RuleId ruleId) {
        return sourceOf(ruleId).map(pools::restsFor).orElse(Duration.ZERO);
    }

    /**
     * Runs {@code work} if the source of the rule has a turn free.
     *
     * @param otherwise what to answer if it has none
     */
    public <T> T take(RuleId ruleId, Supplier<T> work, T otherwise) {
        var source = sourceOf(ruleId);
        // Whatever is wrong with a rule that has lost its source is for its check to say.
        if (source.isEmpty()) return work.get();
        int most = Math.min(mostOfWorkers, source.get().connectionsFor(Lane.CHECKS));
        var count = taken.computeIfAbsent(source.get().name(), _ -> new AtomicInteger());
        if (count.incrementAndGet() > most) {
            count.decrementAndGet();
            return otherwise;
        }
        try {
            return work.get();
        } finally {
            count.decrementAndGet();
        }
    }
}
