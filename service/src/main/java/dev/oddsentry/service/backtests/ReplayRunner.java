package dev.oddsentry.service.backtests;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.evaluation.RuleEvaluator;
import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.service.backtests.BackTestResult.BackTestFinding;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.evaluation.EvaluationInput;
import dev.oddsentry.service.evaluation.Evaluator;
import dev.oddsentry.service.evaluation.Refusals;
import dev.oddsentry.service.reporting.ReportPlanner;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.sources.Source;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;

/** Takes replays of one rule one slot further, all of them on the rows of one reading. */
@Component
public class ReplayRunner {
    private final Evaluator evaluator;
    private final ReportPlanner reportPlanner;
    private final Schedules schedules;

    ReplayRunner(Evaluator evaluator, ReportPlanner reportPlanner, Schedules schedules) {
        this.evaluator = evaluator;
        this.reportPlanner = reportPlanner;
        this.schedules = schedules;
    }

    /**
     * What a check at this slot would have come to.
     *
     * @param news how many findings its mail would have told; none without a mail
     * @param told the exceptions among those findings, by key
     * @param points what it measured
     */
    public record Step(
            Instant slot,
            long rowsRead,
            long exceptions,
            long critical,
            long unevaluated,
            int news,
            Map<Digest, BackTestFinding> told,
            List<RuleEvaluator.Point> points) {}

    /**
     * @param replays of one query with the same parameters
     * @throws dev.oddsentry.service.web.RefusedException if the slot cannot be calculated, with the reason in words
     */
    public List<Step> step(List<Replay> replays, QueryDefinition query, Source source, Instant slot) {
        var questions = replays.stream()
                .map(replay -> new EvaluationInput(
                        replay.rule(),
                        query,
                        source,
                        schedules.moment(replay.rule(), slot, replay.lastSlot()),
                        replay.thresholds(),
                        replay.known(),
                        replay.tick(slot),
                        PendingEffect.NONE,
                        replay.past(),
                        EvaluationInput.Options.of(replay.copy())))
                .toList();
        var all = Refusals.inWords(() -> evaluator.evaluateAll(questions));
        var steps = new ArrayList<Step>();
        for (int i = 0; i < all.size(); i++) steps.add(step(replays.get(i), all.get(i), query, slot));
        return steps;
    }

    private Step step(Replay replay, Evaluation evaluation, QueryDefinition query, Instant slot) {
        try (evaluation) {
            return closed(replay, evaluation, query, slot);
        }
    }

    private Step closed(Replay replay, Evaluation evaluation, QueryDefinition query, Instant slot) {
        var choice = Refusals.inWords(() -> reportPlanner.choose(evaluation, replay));
        var rule = replay.rule();
        var labels = new RuleLabels(rule.groups(), query, replay.thresholds(), LocalDate.ofInstant(slot, rule.zone()));
        var told = ToldFindings.at(slot, evaluation, choice, labels);
        replay.commit(slot, evaluation, choice);
        long critical = evaluation.exceptions().count(Severity.CRITICAL);
        return new Step(
                slot,
                evaluation.reading().rows(),
                evaluation.exceptions().count(),
                critical,
                evaluation.evaluator().unevaluated().size(),
                choice.updates().size(),
                told,
                evaluation.evaluator().points());
    }
}
