package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.TriggersDefinition.WhenEmpty;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.evaluation.Evaluator;
import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.messages.MessageContext;
import dev.oddsentry.service.messages.MessagePlanner;
import dev.oddsentry.service.queries.RunningQuery;
import dev.oddsentry.service.reporting.ReportPlan;
import dev.oddsentry.service.reporting.ReportPlanner;
import org.springframework.stereotype.Component;

/**
 * Runs one unit of a check, the rule itself or one of its personal copies: reads and evaluates, holds its safety limits, plans the report, writes the
 * messages and commits.
 */
@Component
class UnitRunner {
    private final RunningChecks running;
    private final Evaluator evaluator;
    private final ReportPlanner reportPlanner;
    private final MessagePlanner messagePlanner;

    UnitRunner(RunningChecks running, Evaluator evaluator, ReportPlanner reportPlanner, MessagePlanner messagePlanner) {
        this.running = running;
        this.evaluator = evaluator;
        this.reportPlanner = reportPlanner;
        this.messagePlanner = messagePlanner;
    }

    /** How a unit ended. A failure is thrown instead. */
    sealed interface UnitOutcome {
        enum Ended implements UnitOutcome {
            DONE,
            /** Something that the unit depends on has changed since it started, and nothing was written. */
            OUTDATED
        }

        /** It awaits approval, and nothing was written. @param reason the limit that it exceeds, in words */
        record BeyondLimit(String reason, CheckSummary summary) implements UnitOutcome {}
    }

    /** Writes a unit's result in one transaction. */
    @FunctionalInterface
    interface UnitCommit {
        /** @return false if something that the unit depends on has changed, and nothing was written */
        boolean commit(Evaluation evaluation, ReportPlan plan);
    }

    /** @throws RuntimeException for whatever makes the unit fail */
    UnitOutcome run(Attempt attempt, UnitCommit commit) {
        var query = new RunningQuery(attempt.timeLimit());
        var evaluation =
                running.watch(attempt.checkId(), attempt.number(), query, each -> evaluator.evaluate(attempt, each));
        try (evaluation) {
            refuseEmpty(attempt, evaluation);
            var exceeded = SafetyLimit.on(attempt, evaluation);
            if (exceeded.isPresent())
                return new UnitOutcome.BeyondLimit(exceeded.get(), CheckSummary.of(evaluation, ReportPlan.NOTHING));
            var plan = messagePlanner.withMessages(
                    MessageContext.of(attempt), evaluation, reportPlanner.choose(evaluation, attempt.scope()));
            return commit.commit(evaluation, plan) ? UnitOutcome.Ended.DONE : UnitOutcome.Ended.OUTDATED;
        }
    }

    private static void refuseEmpty(Attempt attempt, Evaluation evaluation) {
        boolean fails = attempt.rule().definition().triggers().whenEmpty() == WhenEmpty.FAIL;
        if (fails && evaluation.reading().rows() == 0)
            throw new CheckFailureException(
                    FailureKind.EMPTY_RESULT,
                    "The result had no rows, which is a failure for this rule (when_empty: fail).");
    }
}
