package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.judging.RuleLabels;
import dev.oddsentry.core.memory.KnownTable;
import dev.oddsentry.core.memory.Patience;
import dev.oddsentry.core.memory.Transition;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.service.calendars.Schedules;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.history.SeriesStore;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.web.RefusedException;
import java.time.Instant;
import java.util.UUID;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Runs the ordinary chain for real, up to where something would be written. */
@Component
class Previewing {
    private final DefinitionStore definitions;
    private final Sources sources;
    private final Reckoning reckoning;
    private final MemoryStore memory;
    private final CheckStore checks;
    private final ThresholdStore thresholds;
    private final SeriesStore series;
    private final Schedules schedules;

    Previewing(
            DefinitionStore definitions,
            Sources sources,
            Reckoning reckoning,
            MemoryStore memory,
            CheckStore checks,
            ThresholdStore thresholds,
            SeriesStore series,
            Schedules schedules) {
        this.definitions = definitions;
        this.sources = sources;
        this.reckoning = reckoning;
        this.memory = memory;
        this.checks = checks;
        this.thresholds = thresholds;
        this.series = series;
        this.schedules = schedules;
    }

    /** @param memoryOf the saved rule; null where there is none */
    PreviewRun run(RuleDefinition rule, @Nullable UUID memoryOf, Instant slot) {
        long began = System.nanoTime();
        var query = definitions.query(rule.query()).orElseThrow().definition();
        var moment = schedules.moment(rule, slot);
        var used = thresholds.named(rule.thresholdsUsed());
        long goodSlots = memoryOf == null ? 0 : checks.goodSlots(memoryOf);
        var question = new Question(
                rule,
                query,
                sources.require(query.source()),
                moment,
                used,
                memoryOf == null ? new KnownTable(0) : memory.known(memoryOf),
                new Patience.Tick(goodSlots, true, slot),
                memoryOf == null ? Transition.ORDINARY : checks.onNextCheck(memoryOf),
                memoryOf == null ? Past.NONE : new StoredPast(series, memoryOf, rule, query, moment, goodSlots),
                true);
        return new PreviewRun(
                rule,
                memoryOf,
                moment,
                new RuleLabels(rule.groups(), query, used, moment.today()),
                memoryOf == null ? Audiences.NEW : new StoredAudiences(memory, memoryOf),
                reckoning.reckon(question),
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
