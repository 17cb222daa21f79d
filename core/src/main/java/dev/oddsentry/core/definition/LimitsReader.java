package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.RuleDefinition.LimitsDefinition;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.time.Duration;
import java.util.List;

/** Reads what a check of a rule may cost. */
final class LimitsReader {
    private static final int MOST_RETRIES = 20;

    private LimitsReader() {}

    static LimitsDefinition read(Fields fields) {
        var limits = new LimitsDefinition(
                fields.parsed("time_limit", LimitsReader::time).orElse(null),
                fields.parsed("retries", LimitsReader::retries).orElse(0),
                fields.parsed("retry_after", LimitsReader::time).orElse(LimitsDefinition.USUAL_WAIT));
        fields.refuseOthers();
        return limits;
    }

    private static int retries(String text) {
        if (text.strip().matches("\\d{1,2}") && Integer.parseInt(text.strip()) <= MOST_RETRIES)
            return Integer.parseInt(text.strip());
        throw refused("\"" + text + "\" is not a number of retries from 0 to " + MOST_RETRIES);
    }

    static Duration time(String text) {
        try {
            if (MinimumDuration.parse(text) instanceof MinimumDuration.Elapsed elapsed)
                return elapsed.time().exact();
        } catch (IllegalArgumentException notOne) {
            // The words below say it better for a time alone.
        }
        throw refused("\"" + text + "\" is not a length of time. Examples: 10 minutes, 2 hours");
    }

    private static InvalidDefinitionException refused(String message) {
        return new InvalidDefinitionException(List.of(Problem.error(message, "", null)));
    }
}
