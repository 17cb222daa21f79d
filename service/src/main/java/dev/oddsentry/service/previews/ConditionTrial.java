package dev.oddsentry.service.previews;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.DeliveryDefinition;
import dev.oddsentry.core.definition.MemoryDefinition;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.definition.ScheduleDefinition;
import dev.oddsentry.core.definition.TriggersDefinition;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.memory.FirstCheck;
import dev.oddsentry.core.memory.KnownTable;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.evaluation.EvaluationInput;
import dev.oddsentry.service.evaluation.Evaluator;
import dev.oddsentry.service.evaluation.PartCount;
import dev.oddsentry.service.evaluation.PriorMeasurements;
import dev.oddsentry.service.evaluation.Refusals;
import dev.oddsentry.service.evaluation.UnknownRowsSuggestion;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.visibility.Visibility;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Tries a condition on a query's real rows without a rule. Nothing is remembered but that someone did so, in the audit. */
@Component
public class ConditionTrial {
    /** The first exceptions; their number is always given. */
    private static final int MOST_SHOWN = 1_000;

    private final DefinitionStore definitions;
    private final Sources sources;
    private final Evaluator evaluator;
    private final ThresholdStore thresholds;
    private final Audit audit;
    private final DSLContext db;

    private final UnknownNames unknown;
    private final Visibility visibility;

    ConditionTrial(
            DefinitionStore definitions,
            Sources sources,
            Evaluator evaluator,
            ThresholdStore thresholds,
            Audit audit,
            DSLContext db,
            UnknownNames unknown,
            Visibility visibility) {
        this.visibility = visibility;
        this.unknown = unknown;
        this.definitions = definitions;
        this.sources = sources;
        this.evaluator = evaluator;
        this.thresholds = thresholds;
        this.audit = audit;
        this.db = db;
    }

    /**
     * @param condition as in a rule's {@code exceptions}
     * @param parameters values by name; a query's defaults hold for the others
     * @param per the columns of the groups that it evaluates, none for the whole result; null where it evaluates rows
     * @param key columns of the identity; empty for the whole row
     */
    public record Ask(
            String condition,
            Map<String, String> parameters,
            @Nullable List<String> per,
            List<String> key,
            ZoneId zone,
            Instant slot) {}

    /**
     * @param suggestions how unknown rows could be counted too
     * @param identities of the exceptions, texts in the order of the key, null where a value is missing
     * @param rows of the exceptions, texts in the order of the columns
     */
    public record ConditionTrialResult(
            long rowsRead,
            long exceptions,
            long unknownRows,
            boolean grouped,
            List<PartCount> parts,
            List<UnknownRowsSuggestion> suggestions,
            List<Problem> warnings,
            List<String> columns,
            List<List<@Nullable String>> identities,
            List<List<@Nullable String>> rows) {}

    /** @throws dev.oddsentry.core.problem.InvalidDefinitionException if the condition does not fit the query, with its place */
    public ConditionTrialResult run(Person by, String queryName, Ask ask) {
        var query = definitions.query(queryName).orElseThrow(() -> unknown.of(Kind.QUERY, queryName));
        audit.record(db, by.id(), AuditAct.TRY_CONDITION, queryName, ask.condition());
        var source = sources.require(query.definition().source());
        var rule = ruleOf(query.definition(), ask);
        var moment = new Moment(ask.slot(), ask.zone());
        var input = new EvaluationInput(
                rule,
                query.definition(),
                source,
                moment,
                thresholds.writable(visibility.now(), Set.of()),
                new KnownTable(0),
                new MinimumDuration.Tick(0, true, ask.slot()),
                PendingEffect.NONE,
                PriorMeasurements.NONE,
                EvaluationInput.Options.curious(null, false));
        var evaluation = Refusals.inWords(() -> evaluator.evaluate(input));
        var exceptions = new ArrayList<EvaluatedRow>();
        evaluation.exceptions().forEach(each -> {
            if (exceptions.size() < MOST_SHOWN) exceptions.add(each);
        });
        evaluation.close();
        return new ConditionTrialResult(
                evaluation.reading().rows(),
                evaluation.exceptions().count(),
                evaluation.evaluator().unknownRows(),
                rule.groups() != null,
                PartCount.of(evaluation),
                UnknownRowsSuggestion.of(evaluation),
                evaluation.warnings(),
                evaluation.columns().names(),
                exceptions.stream()
                        .map(each -> texts(each.identity(), ask.zone()))
                        .toList(),
                exceptions.stream().map(each -> texts(each.row(), ask.zone())).toList());
    }

    private static RuleDefinition ruleOf(QueryDefinition query, Ask ask) {
        return new RuleDefinition(
                null,
                "trial",
                "Trial",
                "",
                query.name(),
                ask.zone(),
                ask.parameters(),
                ask.per() == null ? null : new RuleDefinition.GroupsDefinition(ask.per(), Map.of(), null),
                ask.condition(),
                List.of(new RuleDefinition.SeverityLevel(Severity.WARNING, null)),
                null,
                new MemoryDefinition(
                        RuleDefinition.Mode.FULL,
                        ask.key(),
                        List.of(),
                        Set.of(),
                        null,
                        MinimumDuration.NONE,
                        MinimumDuration.NONE,
                        0,
                        null,
                        new MemoryDefinition.SafetyLimits(null, null),
                        FirstCheck.REPORT,
                        null),
                ScheduleDefinition.ON_DEMAND_ONLY,
                TriggersDefinition.NONE,
                RuleDefinition.LimitsDefinition.USUAL,
                null,
                DeliveryDefinition.TO_NOBODY,
                new RuleDefinition.Filing(List.of(), null, List.of()));
    }

    private static List<@Nullable String> texts(List<? extends @Nullable Object> cells, ZoneId zone) {
        return cells.stream()
                .<@Nullable String>map(cell -> cell == null ? null : CellText.brief(cell, zone))
                .toList();
    }
}
