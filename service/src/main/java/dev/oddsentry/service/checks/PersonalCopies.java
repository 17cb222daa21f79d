package dev.oddsentry.service.checks;

import dev.oddsentry.service.checks.FailureReasons.Failure;
import dev.oddsentry.service.checks.UnitRunner.UnitOutcome;
import dev.oddsentry.service.copies.CopyRecipients;
import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.PersonalCopy;
import dev.oddsentry.service.evaluation.PriorChecks;
import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.failures.FailureKind;
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
    private final UnitRunner units;
    private final CopyCommit commit;
    private final CopiesFinisher end;

    PersonalCopies(
            CopyRecipients recipients, CopyStore store, UnitRunner units, CopyCommit commit, CopiesFinisher end) {
        this.recipients = recipients;
        this.store = store;
        this.units = units;
        this.commit = commit;
        this.end = end;
    }

    /** A copy that failed or awaits approval. @param failure null if it awaits approval */
    record Undone(
            PersonalCopy copy,
            String reason,
            @Nullable Failure failure,
            @Nullable CheckSummary counts) {
        static Undone failed(PersonalCopy copy, Failure failure) {
            return new Undone(copy, failure.reason(), failure, null);
        }
    }

    /** @return false: something changed under it; what was done by then stays done */
    boolean run(Attempt attempt) {
        var definition = attempt.rule().definition();
        var copies = recipients.of(definition, Objects.requireNonNull(definition.copies()), attempt.moment());
        Set<String> keys = copies.stream().map(PersonalCopy::key).collect(Collectors.toSet());
        var priorChecks = store.meet(attempt.ruleId(), keys, attempt.newcomer());
        var done = store.done(attempt.checkId());
        var undone = new ArrayList<Undone>();
        Failure ofSource = null;
        for (var copy : copies) {
            if (done.contains(copy.key())) continue;
            if (ofSource != null) {
                // Each further copy would wait as long for the same answer of a source that is down.
                undone.add(Undone.failed(copy, ofSource));
                continue;
            }
            var prior = priorChecks.getOrDefault(copy.key(), PriorChecks.NONE);
            try {
                var outcome = unit(attempt, copy, prior);
                if (outcome == UnitOutcome.Ended.OUTDATED) return false;
                if (outcome instanceof UnitOutcome.BeyondLimit(var reason, var summary))
                    undone.add(new Undone(copy, reason, null, summary));
            } catch (RuntimeException | Error failed) {
                var failure = FailureReasons.of(attempt.checkId(), failed);
                undone.add(Undone.failed(copy, failure));
                if (failure.kind() == FailureKind.SOURCE_UNREACHABLE) ofSource = failure;
            }
        }
        return end.of(attempt, keys, undone);
    }

    /** A later slot comes before the copies that failed were tried again. @return false: none of the check was done */
    boolean replaced(RuleCheckRecord waiting) {
        return end.replaced(waiting, waiting.getReason() + FailureHandler.REPLACED);
    }

    private UnitOutcome unit(Attempt whole, PersonalCopy copy, PriorChecks prior) {
        if (copy.problem() != null) throw new CheckFailureException(FailureKind.RECIPIENTS, copy.problem());
        var attempt = whole.of(copy, prior);
        return units.run(attempt, (evaluation, plan) -> commit.commit(attempt, copy, evaluation, plan));
    }
}
