package dev.oddsentry.service.checks;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.service.queries.QueryFailureException;
import dev.oddsentry.service.queries.QueryFailureException.Blame;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Puts what went wrong with a check into words for its owner. */
final class Failures {
    private static final Logger LOG = LoggerFactory.getLogger(Failures.class);

    private Failures() {}

    /**
     * @param reason in words for the owner
     * @param ofSource whether the source as a whole is to blame, so that other rules fail of the same cause
     * @param again whether another try might go better
     */
    record Failure(String reason, boolean ofSource, boolean timedOut, boolean again) {
        private static Failure ofRule(String reason) {
            return new Failure(reason, false, false, false);
        }
    }

    /** @throws RuntimeException what it was given, where this node shuts down: the check is left as running, for another to take up */
    static Failure of(UUID checkId, RuntimeException failed) {
        return switch (failed) {
            case CheckFailureException expected -> Failure.ofRule(words(expected));
            case InvalidDefinitionException noLongerFits ->
                Failure.ofRule("The rule no longer fits its query: " + noLongerFits.getMessage() + ".");
            case QueryFailureException expected -> {
                handBackIfShuttingDown(expected);
                boolean timedOut = expected.blame() == Blame.TIME;
                yield new Failure(words(expected), expected.blame() == Blame.SOURCE, timedOut, true);
            }
            default -> {
                handBackIfShuttingDown(failed);
                String reference = UUID.randomUUID().toString();
                LOG.error("Check {} failed, reference {}", checkId, reference, failed);
                String reason = "Something went wrong on our side; the log has it under " + reference + ".";
                yield new Failure(reason, false, false, true);
            }
        };
    }

    private static String words(RuntimeException failure) {
        return String.valueOf(failure.getMessage());
    }

    private static void handBackIfShuttingDown(RuntimeException failure) {
        if (Thread.currentThread().isInterrupted()) throw failure;
    }
}
