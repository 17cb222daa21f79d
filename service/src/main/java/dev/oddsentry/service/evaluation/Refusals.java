package dev.oddsentry.service.evaluation;

import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.queries.QueryFailureException;
import dev.oddsentry.service.web.RefusedException;
import java.util.function.Supplier;

/** What fails a check fails a preview or a trial as a refusal to the person who asked, in the same words. */
public final class Refusals {
    private Refusals() {}

    public static <T> T inWords(Supplier<T> evaluator) {
        try {
            return evaluator.get();
        } catch (QueryFailureException | CheckFailureException refused) {
            throw RefusedException.invalid(String.valueOf(refused.getMessage()));
        }
    }
}
