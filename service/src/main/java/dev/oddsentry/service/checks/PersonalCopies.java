package dev.oddsentry.service.checks;

import dev.oddsentry.service.checks.Failures.Failure;
import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import dev.oddsentry.service.queries.RunningQuery;
import java.util.ArrayList;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Runs a check of a rule with personal copies: each is reckoned, told and committed for itself, so that one that fails holds back no
 * other. Another attempt at the same check leaves alone those that are done.
 */
@Component
class PersonalCopies {
    private final Recipients recipients;
    private final CopyStore store;
    private final RunningChecks running;
    private final Reckoning reckoning;
    private final Telling telling;
    private final Announcing announcing;
    private final CopyCommit commit;
    private final CopiesEnd end;

    PersonalCopies(
            Recipients recipients,
            CopyStore store,
            RunningChecks running,
            Reckoning reckoning,
            Telling telling,
            Announcing announcing,
            CopyCommit commit,
            CopiesEnd end) {
        this.recipients = recipients;
        this.store = store;
        this.running = running;
        this.reckoning = reckoning;
        this.telling = telling;
        this.announcing = announcing;
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

    /** @param failure null where it was kept back */
    record Undone(
            PersonalCopy copy,
            String reason,
            @Nullable Failure failure,
            @Nullable Counts counts) implements Went {
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
            // Whoever asks a source that is down once for each copy waits as often for the same answer.
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
        return end.replaced(waiting, waiting.getReason() + Failing.REPLACED);
    }

    private Went go(Attempt whole, PersonalCopy copy, PriorChecks prior) {
        try {
            if (copy.problem() != null) throw new CheckFailureException(copy.problem(), null);
            var attempt = whole.of(copy, prior);
            var query = new RunningQuery(attempt.timeLimit());
            var reckoned =
                    running.watch(attempt.checkId(), attempt.number(), query, each -> reckoning.reckon(attempt, each));
            try (reckoned) {
                return finish(attempt, copy, reckoned);
            }
        } catch (RuntimeException | Error failed) {
            return Undone.failed(copy, Failures.of(whole.checkId(), failed));
        }
    }

    private Went finish(Attempt attempt, PersonalCopy copy, Reckoned reckoned) {
        CheckRunner.refuseBlank(attempt, reckoned);
        var brake = Brake.on(attempt, reckoned);
        if (brake.isPresent()) return new Undone(copy, brake.get(), null, Counts.of(reckoned, Told.NOTHING));
        return commit.commit(
                        attempt,
                        copy,
                        reckoned,
                        announcing.withMessages(About.of(attempt), reckoned, telling.choose(reckoned, attempt.scope())))
                ? Went.Plainly.DONE
                : Went.Plainly.STALE;
    }
}
