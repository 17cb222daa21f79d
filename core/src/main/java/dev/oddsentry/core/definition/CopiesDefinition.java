package dev.oddsentry.core.definition;

import dev.oddsentry.core.memory.FirstCheck;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A personal copy of a rule for each row of a recipient query: judged with that row's values, remembered and mailed for itself.
 *
 * @param from the recipient query
 * @param key the column that tells copies apart, independent of the address it has today
 * @param address the column with one address or several; where it is empty, the delivery's own addresses hear
 * @param greeting the column whose text stands before all else in the mail; null for none
 * @param parameters the column that gives a parameter of the rule's query its value, by parameter
 * @param newcomers what a copy that came later than the others does with what it finds first
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
