package dev.oddsentry.core.problem;

import java.util.List;

/** A text or document was refused; carries every problem found in it, errors and warnings. */
public final class InvalidDefinitionException extends RuntimeException {
    private final transient List<Problem> problems;

    public InvalidDefinitionException(List<Problem> problems) {
        super(problems.isEmpty() ? "invalid" : problems.getFirst().message());
        this.problems = List.copyOf(problems);
    }

    /** One error whose place is known to the reader of the text. */
    public static InvalidDefinitionException of(String message) {
        return new InvalidDefinitionException(List.of(Problem.error(message, "", null)));
    }

    public List<Problem> problems() {
        return problems;
    }
}
