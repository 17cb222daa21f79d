package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.RuleDefinition.Blank;
import dev.oddsentry.core.definition.RuleDefinition.CheckingDefinition;
import dev.oddsentry.core.memory.Patience;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.time.Duration;
import java.util.List;

/** Reads how a rule's checks run. */
final class CheckingReader {
    private static final int MOST_RETRIES = 20;

    private CheckingReader() {}

    static CheckingDefinition read(Fields fields) {
        var checking = new CheckingDefinition(
                fields.parsed("time limit", CheckingReader::time).orElse(null),
                fields.parsed("retries", CheckingReader::retries).orElse(0),
                fields.parsed("retry after", CheckingReader::time).orElse(CheckingDefinition.USUAL_WAIT),
                fields.choice("when blank", Blank.values()).orElse(Blank.QUIET));
        fields.refuseOthers();
        return checking;
    }

    private static int retries(String text) {
        if (text.strip().matches("\\d{1,2}") && Integer.parseInt(text.strip()) <= MOST_RETRIES)
            return Integer.parseInt(text.strip());
        throw refused("\"" + text + "\" is no number of retries from 0 to " + MOST_RETRIES);
    }

    static Duration time(String text) {
        try {
            if (Patience.parse(text) instanceof Patience.Elapsed elapsed)
                return elapsed.time().exact();
        } catch (IllegalArgumentException notOne) {
            // The words below say it better for a time alone.
        }
        throw refused("\"" + text + "\" is no length of time; write it like 10 minutes or 2 hours");
    }

    private static InvalidDefinitionException refused(String message) {
        return new InvalidDefinitionException(List.of(Problem.error(message, "", null)));
    }
}
