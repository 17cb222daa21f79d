package dev.oddsentry.service.checks;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.service.evaluation.CheckFailureException;
import dev.oddsentry.service.queries.QueryFailureException;
import dev.oddsentry.service.queries.QueryFailureException.Blame;
import dev.oddsentry.service.web.RefusedException;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Puts what went wrong with a check into words for its owner. */
final class FailureReasons {
    private static final Logger LOG = LoggerFactory.getLogger(FailureReasons.class);

    private static final long MEBIBYTE = 1 << 20;

    private FailureReasons() {}

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

    /**
     * @param failed an exception, or an error such as memory that ran out: a check that ended in nothing but a dead task would be begun
     *     again without end
     * @throws RuntimeException what it was given, where this node shuts down: the check is left as running, for another to take up
     */
    static Failure of(UUID checkId, Throwable failed) {
        return switch (failed) {
            case CheckFailureException expected -> Failure.ofRule(words(expected));
            case RefusedException refused -> Failure.ofRule(words(refused));
            case InvalidDefinitionException noLongerFits ->
                Failure.ofRule("The rule no longer fits its query: " + noLongerFits.getMessage() + ".");
            case QueryFailureException expected -> {
                handBackIfShuttingDown(expected);
                boolean timedOut = expected.blame() == Blame.TIME;
                yield new Failure(words(expected), expected.blame() == Blame.SOURCE, timedOut, true);
            }
            case OutOfMemoryError tooMuch ->
                Failure.ofRule("The result and its findings need more memory than the service has ("
                        + Runtime.getRuntime().maxMemory() / MEBIBYTE
                        + " MiB): narrow the query, or have the operator give it more; the log has it under "
                        + logged(checkId, tooMuch) + ".");
            default -> {
                if (failed instanceof RuntimeException unexpected) handBackIfShuttingDown(unexpected);
                String known = FullDisks.words(failed);
                String reason = known == null
                        ? "Internal error. Give the operator this reference: " + logged(checkId, failed) + "."
                        : known;
                yield new Failure(reason, false, false, true);
            }
        };
    }

    /** Tried no more: it would end the service once more. */
    static Failure endedTheService(int times) {
        return Failure.ofRule(
                "The service ended " + times
                        + " times while it ran this check, for example because the check used up its memory. Narrow the query, or give the service more memory.");
    }

    private static String logged(UUID checkId, Throwable failed) {
        String reference = UUID.randomUUID().toString();
        LOG.error("Check {} failed, reference {}", checkId, reference, failed);
        return reference;
    }

    private static String words(RuntimeException failure) {
        return String.valueOf(failure.getMessage());
    }

    private static void handBackIfShuttingDown(RuntimeException failure) {
        if (Thread.currentThread().isInterrupted()) throw failure;
    }
}
