package dev.oddsentry.service.checks;

import dev.oddsentry.service.checks.FailureReasons.Failure;
import dev.oddsentry.service.copies.CopyRecipients;
import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.CheckFailureException;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.evaluation.Evaluator;
import dev.oddsentry.service.evaluation.PersonalCopy;
import dev.oddsentry.service.evaluation.PriorChecks;
import dev.oddsentry.service.messages.MessageContext;
import dev.oddsentry.service.messages.MessagePlanner;
import dev.oddsentry.service.queries.RunningQuery;
import dev.oddsentry.service.reporting.ReportPlan;
import dev.oddsentry.service.reporting.ReportPlanner;
import java.util.ArrayList;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Runs a check of a rule with personal copies: each is calculated, reported and committed separately, so that one that fails stops no
 * other. Another attempt at the same check skips those that are done.
 */
@Component
class PersonalCopies {
    private final CopyRecipients recipients;
    private final CopyStore store;
    private final RunningChecks running;
    private final Evaluator evaluator;
    private final ReportPlanner reportPlanner;
    private final MessagePlanner messagePlanner;
    private final CopyCommit commit;
    private final CopiesFinisher end;

    PersonalCopies(
            CopyRecipients recipients,
            CopyStore store,
            RunningChecks running,
            Evaluator evaluator,
            ReportPlanner reportPlanner,
            MessagePlanner messagePlanner,
            CopyCommit commit,
            CopiesFinisher end) {
        this.recipients = recipients;
        this.store = store;
        this.running = running;
        this.evaluator = evaluator;
        this.reportPlanner = reportPlanner;
        this.messagePlanner = messagePlanner;
        this.commit = commit;
        this.end = end;
    }

    /** How a copy went. */
    sealed interface Went {
        enum Plainly implements Went {
            DONE,
            STALE
        }
    }

    /** @param failure null if the copy awaits approval */
    record Undone(
            PersonalCopy copy,
            String reason,
            @Nullable Failure failure,
            @Nullable CheckSummary counts) implements Went {
        static Undone failed(PersonalCopy copy, Failure failure) {
            return new Undone(copy, failure.reason(), failure, null);
        }
    }

    /** @return false: something changed under it; what was done by then stays done */
    boolean run(Attempt attempt) {
        var definition = attempt.rule().definition();
        var copies = recipients.of(definition, Objects.requireNonNull(definition.copies()), attempt.moment());
        Set<String> keys = copies.stream().map(PersonalCopy::key).collect(Collectors.toSet());
        var standings = store.meet(attempt.ruleId(), keys, attempt.newcomer());
        var done = store.done(attempt.checkId());
        var undone = new ArrayList<Undone>();
        Failure ofSource = null;
        for (var copy : copies) {
            if (done.contains(copy.key())) continue;
            // A check that asks a source that is down once for each copy waits as often for the same answer.
            var went = ofSource != null
                    ? Undone.failed(copy, ofSource)
                    : go(attempt, copy, standings.getOrDefault(copy.key(), PriorChecks.NONE));
            if (went == Went.Plainly.STALE) return false;
            if (!(went instanceof Undone one)) continue;
            undone.add(one);
            if (one.failure() != null && one.failure().ofSource()) ofSource = one.failure();
        }
        return end.of(attempt, keys, undone);
    }

    /** A later slot comes before the copies that failed were tried again. @return false: none of the check was done */
    boolean replaced(RuleCheckRecord waiting) {
        return end.replaced(waiting, waiting.getReason() + FailureHandler.REPLACED);
    }

    private Went go(Attempt whole, PersonalCopy copy, PriorChecks prior) {
        try {
            if (copy.problem() != null) throw new CheckFailureException(copy.problem(), null);
            var attempt = whole.of(copy, prior);
            var query = new RunningQuery(attempt.timeLimit());
            var evaluation = running.watch(
                    attempt.checkId(), attempt.number(), query, each -> evaluator.evaluate(attempt, each));
            try (evaluation) {
                return finish(attempt, copy, evaluation);
            }
        } catch (RuntimeException | Error failed) {
            return Undone.failed(copy, FailureReasons.of(whole.checkId(), failed));
        }
    }

    private Went finish(Attempt attempt, PersonalCopy copy, Evaluation evaluation) {
        CheckRunner.refuseEmpty(attempt, evaluation);
        var brake = SafetyLimit.on(attempt, evaluation);
        if (brake.isPresent())
            return new Undone(copy, brake.get(), null, CheckSummary.of(evaluation, ReportPlan.NOTHING));
        return commit.commit(
                        attempt,
                        copy,
                        evaluation,
                        messagePlanner.withMessages(
                                MessageContext.of(attempt),
                                evaluation,
                                reportPlanner.choose(evaluation, attempt.scope())))
                ? Went.Plainly.DONE
                : Went.Plainly.STALE;
    }
}
