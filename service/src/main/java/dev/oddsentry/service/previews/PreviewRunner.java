package dev.oddsentry.service.previews;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.core.memory.KnownTable;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.service.checks.PriorChecksLookup;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.evaluation.EvaluationInput;
import dev.oddsentry.service.evaluation.Evaluator;
import dev.oddsentry.service.evaluation.PersonalCopy;
import dev.oddsentry.service.evaluation.PriorMeasurements;
import dev.oddsentry.service.evaluation.Refusals;
import dev.oddsentry.service.evaluation.StoredMeasurements;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.layouts.Layouts;
import dev.oddsentry.service.measurements.MeasurementStore;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.memory.Scope;
import dev.oddsentry.service.reporting.Audiences;
import dev.oddsentry.service.reporting.StoredAudiences;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.web.RefusedException;
import java.time.Instant;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Runs the ordinary chain for real, up to where something would be written. */
@Component
class PreviewRunner {
    private final DefinitionStore definitions;
    private final Sources sources;
    private final Evaluator evaluator;
    private final MemoryStore memory;
    private final PriorChecksLookup standings;
    private final ThresholdStore thresholds;
    private final MeasurementStore series;
    private final Schedules schedules;
    private final Layouts layouts;

    PreviewRunner(
            DefinitionStore definitions,
            Sources sources,
            Evaluator evaluator,
            MemoryStore memory,
            PriorChecksLookup standings,
            ThresholdStore thresholds,
            MeasurementStore series,
            Schedules schedules,
            Layouts layouts) {
        this.definitions = definitions;
        this.sources = sources;
        this.evaluator = evaluator;
        this.memory = memory;
        this.standings = standings;
        this.thresholds = thresholds;
        this.series = series;
        this.schedules = schedules;
        this.layouts = layouts;
    }

    /**
     * @param memoryOf the saved rule; null where there is none
     * @param copy which personal copy; null where the rule has none
     */
    PreviewRun run(RuleDefinition asWritten, @Nullable RuleId memoryOf, Instant slot, @Nullable PersonalCopy copy) {
        var query = definitions.query(asWritten.query()).orElseThrow().definition();
        return run(asWritten, query, memoryOf, slot, copy);
    }

    /** A rule of which nothing is remembered, on some of its rows. */
    PreviewRun sample(RuleDefinition asWritten, Instant slot, @Nullable PersonalCopy copy, long rows) {
        var query = definitions.query(asWritten.query()).orElseThrow().definition();
        return run(asWritten, query, null, slot, copy, EvaluationInput.Options.sample(copy, rows));
    }

    /** The same on a query that is not the saved one. */
    PreviewRun run(
            RuleDefinition asWritten,
            QueryDefinition query,
            @Nullable RuleId memoryOf,
            Instant slot,
            @Nullable PersonalCopy copy) {
        return run(asWritten, query, memoryOf, slot, copy, null);
    }

    /** @param options null for a person who looks on */
    private PreviewRun run(
            RuleDefinition asWritten,
            QueryDefinition query,
            @Nullable RuleId memoryOf,
            Instant slot,
            @Nullable PersonalCopy copy,
            EvaluationInput.@Nullable Options options) {
        long began = System.nanoTime();
        var rule = layouts.resolved(asWritten);
        var asked = copy == null ? rule : copy.applyTo(rule);
        var used = thresholds.named(rule.thresholdsUsed());
        var scope = memoryOf == null ? null : new Scope(memoryOf, copy == null ? null : copy.key());
        var prior = standings.of(scope);
        var moment = schedules.moment(rule, slot, prior.lastGoodSlot());
        var input = new EvaluationInput(
                asked,
                query,
                sources.require(query.source()),
                moment,
                used,
                scope == null || rule.isPlainReport() ? new KnownTable(0) : memory.known(scope),
                new MinimumDuration.Tick(prior.goodSlots(), true, slot),
                prior.pending(),
                scope == null
                        ? PriorMeasurements.NONE
                        : new StoredMeasurements(series, scope, asked, query, moment, prior.goodSlots()),
                options == null ? EvaluationInput.Options.curious(copy, prior.newcomer()) : options);
        return new PreviewRun(
                asked,
                scope,
                copy,
                moment,
                new RuleLabels(rule.groups(), query, used, moment.today()),
                scope == null ? Audiences.NEW : new StoredAudiences(memory, scope),
                evaluator.evaluate(input),
                began);
    }

    /** @throws RefusedException if it cannot be run, with the reason in words */
    <T> T inWords(Supplier<T> run) {
        try {
            return Refusals.inWords(run);
        } catch (InvalidDefinitionException noLongerFits) {
            throw RefusedException.invalid("The rule no longer fits its query: " + noLongerFits.getMessage() + ".");
        }
    }
}
