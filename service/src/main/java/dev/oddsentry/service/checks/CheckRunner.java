package dev.oddsentry.service.checks;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.service.checks.CheckStore.NewCheck;
import dev.oddsentry.service.queries.QueryFailureException;
import java.time.Instant;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Runs one check from its slot to its messages: {@link CheckBeginning} fixes what it is reckoned with, {@link Reckoning} reads,
 * judges and compares, {@link Telling} chooses and renders, {@link CheckCommit} writes all of it or nothing.
 *
 * <p>If this node dies on the way, the durable task behind the check runs again elsewhere and starts the next attempt; whatever
 * this attempt had not committed was never there.
 */
@Component
public class CheckRunner {
    private static final Logger LOG = LoggerFactory.getLogger(CheckRunner.class);
    /** A check that finds its rule or memory changed runs again at once, so often. */
    private static final int MOST_ATTEMPTS_WHEN_STALE = 3;

    private final CheckStore store;
    private final CheckBeginning beginning;
    private final Reckoning reckoning;
    private final Telling telling;
    private final CheckCommit commit;

    CheckRunner(CheckStore store, CheckBeginning beginning, Reckoning reckoning, Telling telling, CheckCommit commit) {
        this.store = store;
        this.beginning = beginning;
        this.reckoning = reckoning;
        this.telling = telling;
        this.commit = commit;
    }

    /** @return false: another check of this rule is running; ask again */
    public boolean runScheduled(UUID ruleId, Instant slot, int standsFor) {
        var leftBehind = store.running(ruleId).filter(check -> check.getOrigin() == CheckOrigin.SCHEDULED);
        if (leftBehind.isPresent()) {
            // A rule's slots are one task's, so whoever began this one has died; its slot comes before any later one.
            run(leftBehind.get().getId());
            return false;
        }
        store.insert(new NewCheck(UUID.randomUUID(), ruleId, slot, CheckOrigin.SCHEDULED, standsFor, null, null));
        var check = store.ofSlot(ruleId, slot);
        if (check.isEmpty()) return false;
        run(check.get().getId());
        return true;
    }

    /** Runs a check that stands as running; one that has ended is left as it is. */
    void run(UUID checkId) {
        for (int i = 0; i < MOST_ATTEMPTS_WHEN_STALE; i++) {
            var attempt = store.takeUp(checkId);
            if (attempt.isEmpty() || attempt(checkId, attempt.get())) return;
        }
        store.takeUp(checkId)
                .ifPresent(attempt -> store.end(
                        checkId,
                        attempt,
                        CheckState.STALE,
                        "The rule or its memory changed under the check each time it ran."));
    }

    /** @return false: something changed under it, and it wrote nothing */
    private boolean attempt(UUID checkId, int number) {
        try {
            var attempt = beginning.begin(checkId, number);
            if (attempt.isEmpty()) return true;
            var reckoned = reckoning.reckon(attempt.get());
            var told = telling.tell(attempt.get(), reckoned);
            return commit.commit(attempt.get(), reckoned, told);
        } catch (QueryFailureException | CheckFailureException expected) {
            store.end(checkId, number, CheckState.FAILED, expected.getMessage());
        } catch (InvalidDefinitionException noLongerFits) {
            store.end(
                    checkId,
                    number,
                    CheckState.FAILED,
                    "The rule no longer fits its query: " + noLongerFits.getMessage() + ".");
        } catch (RuntimeException unexpected) {
            String reference = UUID.randomUUID().toString();
            LOG.error("Check {} failed, reference {}", checkId, reference, unexpected);
            store.end(
                    checkId,
                    number,
                    CheckState.FAILED,
                    "Something went wrong on our side; the log has it under " + reference + ".");
        }
        return true;
    }
}
