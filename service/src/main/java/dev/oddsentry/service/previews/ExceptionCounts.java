package dev.oddsentry.service.previews;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.KnownTable;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.checks.PriorChecksLookup;
import dev.oddsentry.service.copies.CopyLookup;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.evaluation.EvaluationInput;
import dev.oddsentry.service.evaluation.Evaluator;
import dev.oddsentry.service.evaluation.PersonalCopy;
import dev.oddsentry.service.evaluation.Refusals;
import dev.oddsentry.service.evaluation.StoredMeasurements;
import dev.oddsentry.service.measurements.MeasurementStore;
import dev.oddsentry.service.memory.Scope;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Counts a rule's exceptions as of now under several thresholds. The query runs once; nothing is remembered. */
@Component
public class ExceptionCounts {
    private final DefinitionStore definitions;
    private final Sources sources;
    private final Schedules schedules;
    private final Evaluator evaluator;
    private final CopyLookup oneCopy;
    private final PriorChecksLookup standings;
    private final MeasurementStore series;
    private final Audit audit;
    private final DSLContext db;
    private final Clock clock;

    ExceptionCounts(
            DefinitionStore definitions,
            Sources sources,
            Schedules schedules,
            Evaluator evaluator,
            CopyLookup oneCopy,
            PriorChecksLookup standings,
            MeasurementStore series,
            Audit audit,
            DSLContext db,
            Clock clock) {
        this.definitions = definitions;
        this.sources = sources;
        this.schedules = schedules;
        this.evaluator = evaluator;
        this.oneCopy = oneCopy;
        this.standings = standings;
        this.series = series;
        this.audit = audit;
        this.db = db;
        this.clock = clock;
    }

    /** @param otherSeverity how many are exceptions before and after, with another severity */
    public record BeforeAndAfter(long before, long after, long otherSeverity) {
        private BeforeAndAfter plus(BeforeAndAfter other) {
            return new BeforeAndAfter(before + other.before, after + other.after, otherSeverity + other.otherSeverity);
        }
    }

    /** @throws RefusedException if it cannot be counted, with the reason in words */
    public BeforeAndAfter of(Person by, Current<RuleDefinition> rule, Thresholds before, Thresholds after) {
        audit.record(db, by.id(), AuditAct.COUNT_EXCEPTIONS, rule.definition().name(), null);
        var query = definitions.query(rule.definition().query()).orElseThrow().definition();
        var source = sources.require(query.source());
        Instant slot = clock.instant();
        var counted = new BeforeAndAfter(0, 0, 0);
        try {
            for (var copy : copiesOf(rule.definition(), slot)) {
                var asked = copy.map(one -> one.applyTo(rule.definition())).orElse(rule.definition());
                var key = copy.map(PersonalCopy::key).orElse(null);
                var scope = new Scope(rule.ruleId(), key);
                var prior = standings.of(scope);
                long goodSlots = prior.goodSlots();
                var moment = schedules.moment(rule.definition(), slot, prior.lastGoodSlot());
                var past = new StoredMeasurements(series, scope, asked, query, moment, goodSlots);
                var tick = new MinimumDuration.Tick(goodSlots, true, moment.slot());
                var questions = Stream.of(before, after)
                        .map(thresholds -> new EvaluationInput(
                                asked,
                                query,
                                source,
                                moment,
                                thresholds,
                                new KnownTable(0),
                                tick,
                                PendingEffect.NONE,
                                past,
                                EvaluationInput.Options.of(key)))
                        .toList();
                var evaluation = Refusals.inWords(() -> evaluator.evaluateAll(questions));
                counted = counted.plus(countAndClose(evaluation.getFirst(), evaluation.getLast()));
            }
        } catch (InvalidDefinitionException noLongerFits) {
            throw RefusedException.invalid("The rule no longer fits its query: " + noLongerFits.getMessage() + ".");
        }
        return counted;
    }

    /** Each personal copy; one null if the rule has none. */
    private List<Optional<PersonalCopy>> copiesOf(RuleDefinition rule, Instant slot) {
        var copies = Refusals.inWords(() -> oneCopy.all(rule, slot));
        return copies.isEmpty()
                ? List.of(Optional.empty())
                : copies.stream().map(Optional::of).toList();
    }

    private static BeforeAndAfter countAndClose(Evaluation before, Evaluation after) {
        try (before;
                after) {
            var severities = new HashMap<Digest, Severity>();
            before.exceptions().forEach(evaluatedRow -> severities.put(evaluatedRow.key(), evaluatedRow.severity()));
            long[] other = {0};
            after.exceptions().forEach(evaluatedRow -> {
                if (severities.getOrDefault(evaluatedRow.key(), evaluatedRow.severity()) != evaluatedRow.severity())
                    other[0]++;
            });
            return new BeforeAndAfter(
                    before.exceptions().count(), after.exceptions().count(), other[0]);
        }
    }
}
