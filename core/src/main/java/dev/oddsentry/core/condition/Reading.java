package dev.oddsentry.core.condition;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** What came of reading a condition: the condition, unless there was an error, and every problem found. */
public record Reading(@Nullable Condition readable, List<Problem> problems) {

    public Optional<Condition> condition() {
        return Optional.ofNullable(readable);
    }

    /** @throws InvalidDefinitionException if it has errors */
    public Condition orThrow() {
        if (readable == null) throw new InvalidDefinitionException(problems);
        return readable;
    }
}
