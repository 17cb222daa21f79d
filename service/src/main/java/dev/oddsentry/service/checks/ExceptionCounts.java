package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.memory.KnownTable;
import dev.oddsentry.core.memory.Patience;
import dev.oddsentry.core.memory.Transition;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.calendars.Schedules;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.history.SeriesStore;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Counts a rule's exceptions as of now under several thresholds. The query runs once; nothing is remembered. */
@Component
public class ExceptionCounts {
    private final DefinitionStore definitions;
    private final Sources sources;
    private final Schedules schedules;
    private final Reckoning reckoning;
    private final CheckStore checks;
    private final SeriesStore series;
    private final Audit audit;
    private final DSLContext db;
    private final Clock clock;

    ExceptionCounts(
            DefinitionStore definitions,
            Sources sources,
            Schedules schedules,
            Reckoning reckoning,
            CheckStore checks,
            SeriesStore series,
            Audit audit,
            DSLContext db,
            Clock clock) {
        this.definitions = definitions;
        this.sources = sources;
        this.schedules = schedules;
        this.reckoning = reckoning;
        this.checks = checks;
        this.series = series;
        this.audit = audit;
        this.db = db;
        this.clock = clock;
    }

    /** @throws RefusedException if it cannot be counted, with the reason in words */
    public List<Long> of(Person by, Current<RuleDefinition> rule, List<Thresholds> each) {
        audit.record(db, by.id(), "count exceptions", rule.definition().name(), null);
        var query = definitions.query(rule.definition().query()).orElseThrow().definition();
        var source = sources.require(query.source());
        var moment = schedules.moment(rule.definition(), clock.instant());
        long goodSlots = checks.goodSlots(rule.id());
        var past = new StoredPast(series, rule.id(), rule.definition(), query, moment, goodSlots);
        var tick = new Patience.Tick(goodSlots, true, moment.slot());
        try {
            var questions = each.stream()
                    .map(thresholds -> new Question(
                            rule.definition(),
                            query,
                            source,
                            moment,
                            thresholds,
                            new KnownTable(0),
                            tick,
                            Transition.ORDINARY,
                            past,
                            false))
                    .toList();
            return Refusals.inWords(() -> reckoning.reckonAll(questions)).stream()
                    .map(ExceptionCounts::countAndClose)
                    .toList();
        } catch (InvalidDefinitionException noLongerFits) {
            throw RefusedException.invalid("The rule no longer fits its query: " + noLongerFits.getMessage() + ".");
        }
    }

    private static long countAndClose(Reckoned reckoned) {
        try (reckoned) {
            return reckoned.exceptions().count();
        }
    }
}
