package dev.oddsentry.service.evaluation;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.web.RefusedException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * One row of a recipient query.
 *
 * @param key the value that identifies the copy, as text
 * @param to its addresses; empty where the row names none
 * @param greeting the first line of its messages; null for none
 * @param values of the rule's parameters, as one would write them
 * @param row every column of the row as text, for the texts of the mail
 * @param problem why it cannot be checked, in words; null if it can
 */
public record PersonalCopy(
        String key,
        List<String> to,
        @Nullable String greeting,
        Map<String, String> values,
        Map<String, String> row,
        @Nullable String problem) {

    /** The rule with the values of this copy as its parameters. */
    public RuleDefinition applyTo(RuleDefinition rule) {
        if (problem != null) throw RefusedException.invalid(problem);
        var all = new LinkedHashMap<>(rule.parameters());
        all.putAll(values);
        return rule.withParameters(all);
    }
}
