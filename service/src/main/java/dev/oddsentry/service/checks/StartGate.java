package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.TriggersDefinition.ReadyWhen;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.queries.QueryFailureException;
import dev.oddsentry.service.queries.QueryRunner;
import dev.oddsentry.service.sources.Source;
import dev.oddsentry.service.sources.Sources;
import java.time.Clock;
import java.time.Instant;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import org.springframework.stereotype.Component;

/** What a check waits for before it asks its source. Waiting is for the wall clock: what is asked then is still calculated from the slot. */
@Component
class StartGate {
    private final DefinitionStore definitions;
    private final Sources sources;
    private final QueryRunner queries;
    private final Clock clock;

    StartGate(DefinitionStore definitions, Sources sources, QueryRunner queries, Clock clock) {
        this.definitions = definitions;
        this.sources = sources;
        this.queries = queries;
        this.clock = clock;
    }

    /** @param reason in words for the owner, a whole sentence */
    record Wait(WaitingFor what, Instant until, String reason) {}

    /**
     * @return empty if the check may run now
     * @throws CheckFailureException if it was not ready by its deadline
     * @throws QueryFailureException if whether it is ready cannot be asked
     */
    Optional<Wait> before(Attempt attempt) {
        var closed = closed(attempt.source());
        if (closed.isPresent()) return closed;
        var ready = attempt.rule().definition().triggers().ready();
        return ready == null ? Optional.empty() : notReady(attempt, ready);
    }

    private Optional<Wait> closed(Source source) {
        var hours = source.closedHours();
        if (hours == null) return Optional.empty();
        return hours.opensAgain(clock.instant())
                .map(opens -> new Wait(
                        WaitingFor.SOURCE_OPEN,
                        opens,
                        "The source " + source.name() + " is closed from " + hours.from() + " to " + hours.until() + " "
                                + hours.zone() + "."));
    }

    private Optional<Wait> notReady(Attempt attempt, ReadyWhen ready) {
        var query = definitions
                .query(ready.query())
                .orElseThrow(() -> new CheckFailureException(
                        FailureKind.NAMED_QUERY,
                        "The query " + ready.query() + ", which says when it is ready, is gone."))
                .definition();
        var source = sources.require(query.source());
        var closed = closed(source);
        if (closed.isPresent()) return closed;
        var seen = new AtomicBoolean();
        var values = Parameters.valuesAt(attempt.moment(), attempt.rule().definition(), query);
        queries.readAll(source, query, values, _ -> _ -> seen.set(true));
        if (seen.get()) return Optional.empty();
        Instant deadline = attempt.slot().plus(ready.until());
        Instant now = clock.instant();
        String words = "the query " + ready.query() + " returned no row";
        if (!now.isBefore(deadline))
            throw new CheckFailureException(
                    FailureKind.NOT_READY,
                    "Not ready: " + words + " within " + MinimumDuration.text(Span.between(ready.until()))
                            + " of the slot.");
        Instant again = now.plus(ready.every());
        return Optional.of(new Wait(
                WaitingFor.READY, again.isBefore(deadline) ? again : deadline, "Not ready yet: " + words + "."));
    }
}
