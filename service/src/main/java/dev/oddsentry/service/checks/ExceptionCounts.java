package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.memory.KnownTable;
import dev.oddsentry.core.memory.Patience;
import dev.oddsentry.core.memory.Transition;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.calendars.Schedules;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.history.SeriesStore;
import dev.oddsentry.service.memory.Scope;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Counts a rule's exceptions as of now under several thresholds. The query runs once; nothing is remembered. */
@Component
public class ExceptionCounts {
    private final DefinitionStore definitions;
    private final Sources sources;
    private final Schedules schedules;
    private final Reckoning reckoning;
    private final OneCopy oneCopy;
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
            OneCopy oneCopy,
            CheckStore checks,
            SeriesStore series,
            Audit audit,
            DSLContext db,
            Clock clock) {
        this.definitions = definitions;
        this.sources = sources;
        this.schedules = schedules;
        this.reckoning = reckoning;
        this.oneCopy = oneCopy;
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
        var standing = checks.ofRule(rule.id());
        long goodSlots = standing.goodSlots();
        var moment = schedules.moment(rule.definition(), clock.instant(), standing.lastGoodSlot());
        var counts = new long[each.size()];
        try {
            for (var copy : copiesOf(rule.definition(), moment)) {
                var asked = OneCopy.rule(rule.definition(), copy.orElse(null));
                var key = copy.map(PersonalCopy::key).orElse(null);
                var past = new StoredPast(series, new Scope(rule.id(), key), asked, query, moment, goodSlots);
                var tick = new Patience.Tick(goodSlots, true, moment.slot());
                var questions = each.stream()
                        .map(thresholds -> new Question(
                                asked,
                                query,
                                source,
                                moment,
                                thresholds,
                                new KnownTable(0),
                                tick,
                                Transition.ORDINARY,
                                past,
                                Question.Asking.of(key)))
                        .toList();
                var reckoned = Refusals.inWords(() -> reckoning.reckonAll(questions));
                for (int i = 0; i < counts.length; i++) counts[i] += countAndClose(reckoned.get(i));
            }
        } catch (InvalidDefinitionException noLongerFits) {
            throw RefusedException.invalid("The rule no longer fits its query: " + noLongerFits.getMessage() + ".");
        }
        return Arrays.stream(counts).boxed().toList();
    }

    /** Each personal copy; nobody in particular where the rule has none. */
    private List<Optional<PersonalCopy>> copiesOf(RuleDefinition rule, Moment moment) {
        var copies = Refusals.inWords(() -> oneCopy.all(rule, moment.slot()));
        return copies.isEmpty()
                ? List.of(Optional.empty())
                : copies.stream().map(Optional::of).toList();
    }

    private static long countAndClose(Reckoned reckoned) {
        try (reckoned) {
            return reckoned.exceptions().count();
        }
    }
}
