package dev.oddsentry.core.definition;

import dev.oddsentry.core.condition.Condition;
import dev.oddsentry.core.condition.FireWhen;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.ScalarType;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;

/** Texts whose grammar is checked where they are read; what they name is checked when the definition is saved. */
final class Conditions {
    static final ScalarType<String> CONDITION =
            FieldTypes.text("[condition](conditions.md), such as `delay_min > 15`", Conditions::grammar);
    static final ScalarType<String> EXPRESSION =
            FieldTypes.text("[expression](conditions.md), such as `sum(litres)`", Conditions::grammar);
    static final ScalarType<String> FIRE_WHEN =
            FieldTypes.text("condition over the check, such as `updates() > 0`", Conditions::fireWhen);

    private Conditions() {}

    private static String grammar(String text) {
        var problems = Condition.checkGrammar(text);
        if (problems.isEmpty()) return text;
        throw new InvalidDefinitionException(problems);
    }

    private static String fireWhen(String text) {
        var problems = FireWhen.read(text).problems();
        if (problems.stream().noneMatch(Problem::stopsSave)) return text;
        throw new InvalidDefinitionException(problems);
    }
}
