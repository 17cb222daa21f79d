package dev.oddsentry.core.definition;

import dev.oddsentry.core.memory.FirstCheck;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A personal copy of a rule for each row of a recipient query, with parameter values, a memory and messages of its own.
 *
 * @param from the recipient query
 * @param key the column that identifies a copy, whatever its address is today
 * @param address the column with one or more addresses; if empty, messages go to the delivery's recipients
 * @param greeting the column with the first line of the message; null for none
 * @param parameters by parameter of the rule's query: the column with its value
 * @param newcomers whether a copy that is added later reports the findings that already exist
 */
public record CopiesDefinition(
        String from,
        String key,
        String address,
        @Nullable String greeting,
        Map<String, String> parameters,
        FirstCheck newcomers) {
    public static final String USUAL_ADDRESS = "address";
}
