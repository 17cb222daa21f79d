package dev.oddsentry.service.previews;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.RuleEvaluator;
import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.KnownTable;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.checks.PriorChecksLookup;
import dev.oddsentry.service.copies.CopyLookup;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.evaluation.EvaluationInput;
import dev.oddsentry.service.evaluation.Evaluator;
import dev.oddsentry.service.evaluation.Refusals;
import dev.oddsentry.service.evaluation.StoredMeasurements;
import dev.oddsentry.service.measurements.MeasurementStore;
import dev.oddsentry.service.memory.Scope;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.web.RefusedException;
import java.time.Instant;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Looks at one row, or group, of a rule's present result, whether it is an exception or not. Remembers nothing. */
@Component
public class RowInspector {
    private final DefinitionStore definitions;
    private final Sources sources;
    private final Schedules schedules;
    private final Evaluator evaluator;
    private final CopyLookup oneCopy;
    private final PriorChecksLookup standings;
    private final ThresholdStore thresholds;
    private final MeasurementStore series;
    private final Audit audit;
    private final DSLContext db;

    RowInspector(
            DefinitionStore definitions,
            Sources sources,
            Schedules schedules,
            Evaluator evaluator,
            CopyLookup oneCopy,
            PriorChecksLookup standings,
            ThresholdStore thresholds,
            MeasurementStore series,
            Audit audit,
            DSLContext db) {
        this.definitions = definitions;
        this.sources = sources;
        this.schedules = schedules;
        this.evaluator = evaluator;
        this.oneCopy = oneCopy;
        this.standings = standings;
        this.thresholds = thresholds;
        this.series = series;
        this.audit = audit;
        this.db = db;
    }

    /** @param sought empty if the result has no such row */
    public record Seen(Columns columns, RuleLabels labels, Optional<RuleEvaluator.Sought> sought) {}

    /**
     * @param copy which personal copy's; null where the rule has none
     * @throws RefusedException if the source cannot be asked, with the reason in words
     */
    public Seen at(Person by, Current<RuleDefinition> rule, @Nullable String copy, Digest key, Instant slot) {
        audit.record(db, by.id(), AuditAct.EXPLAIN_FINDING, rule.definition().name(), null);
        var query = definitions.query(rule.definition().query()).orElseThrow().definition();
        var asked = oneCopy.rule(rule.definition(), slot, copy);
        var scope = new Scope(rule.ruleId(), copy);
        var prior = standings.of(scope);
        long goodSlots = prior.goodSlots();
        var moment = schedules.moment(rule.definition(), slot, prior.lastGoodSlot());
        var used = thresholds.named(asked.thresholdsUsed());
        var input = new EvaluationInput(
                asked,
                query,
                sources.require(query.source()),
                moment,
                used,
                new KnownTable(0),
                new MinimumDuration.Tick(goodSlots, true, slot),
                PendingEffect.NONE,
                new StoredMeasurements(series, scope, asked, query, moment, goodSlots),
                EvaluationInput.Options.seeking(copy, key));
        try {
            var evaluation = Refusals.inWords(() -> evaluator.evaluate(input));
            try (evaluation) {
                var labels = new RuleLabels(asked.groups(), query, used, moment.today());
                return new Seen(
                        evaluation.columns(), labels, evaluation.evaluator().sought());
            }
        } catch (InvalidDefinitionException noLongerFits) {
            throw RefusedException.invalid("The rule no longer fits its query: " + noLongerFits.getMessage() + ".");
        }
    }
}
