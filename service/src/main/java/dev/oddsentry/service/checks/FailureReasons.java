package dev.oddsentry.service.checks;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.queries.QueryFailureException;
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
     * @param timedOut whether the query, or that of one of several copies, took longer than it may
     * @param again whether another try might succeed
     */
    record Failure(FailureKind kind, String reason, boolean timedOut, boolean again) {
        Failure(FailureKind kind, String reason) {
            this(kind, reason, kind == FailureKind.TIME_LIMIT, kind.mayPass());
        }
    }

    /**
     * @param failed an exception, or an error such as memory that ran out: a check that ended in nothing but a dead task would be begun
     *     again without end
     * @throws RuntimeException what it was given, where this node shuts down: the check is left as running, for another to take up
     */
    static Failure of(CheckId checkId, Throwable failed) {
        return switch (failed) {
            case CheckFailureException expected -> new Failure(expected.kind(), words(expected));
            case RefusedException refused -> new Failure(FailureKind.RULE_INVALID, words(refused));
            case InvalidDefinitionException noLongerFits ->
                new Failure(
                        FailureKind.RULE_INVALID,
                        "The rule no longer fits its query: " + noLongerFits.getMessage() + ".");
            case QueryFailureException expected -> {
                handBackIfShuttingDown(expected);
                yield new Failure(expected.kind(), words(expected));
            }
            case OutOfMemoryError tooMuch ->
                new Failure(
                        FailureKind.MEMORY,
                        "The result and its findings need more memory than the service has ("
                                + Runtime.getRuntime().maxMemory() / MEBIBYTE
                                + " MiB): narrow the query, or have the operator give it more; the log has it under "
                                + logged(checkId, tooMuch) + ".");
            default -> {
                if (failed instanceof RuntimeException unexpected) handBackIfShuttingDown(unexpected);
                String known = FullDisks.words(failed);
                yield known == null
                        ? new Failure(
                                FailureKind.INTERNAL,
                                "Internal error. Give the operator this reference: " + logged(checkId, failed) + ".")
                        : new Failure(FailureKind.DISK_FULL, known);
            }
        };
    }

    /** Tried no more: it would end the service once more. */
    static Failure endedTheService(int times) {
        return new Failure(
                FailureKind.SERVICE_ENDED,
                "The service ended " + times
                        + " times while it ran this check, for example because the check used up its memory. Narrow the query, or give the service more memory.");
    }

    private static String logged(CheckId checkId, Throwable failed) {
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
