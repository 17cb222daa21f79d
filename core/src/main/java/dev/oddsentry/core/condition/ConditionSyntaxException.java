package dev.oddsentry.core.condition;

import dev.oddsentry.core.problem.Problem;

/** Stops the lexer or the parser at the first place it cannot read on; turned into a problem by {@link Condition#read}. */
final class ConditionSyntaxException extends RuntimeException {
    private final transient Problem problem;

    ConditionSyntaxException(Problem problem) {
        super(problem.message());
        this.problem = problem;
    }

    Problem problem() {
        return problem;
    }
}
