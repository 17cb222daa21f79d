package dev.oddsentry.service.workbench;

import dev.oddsentry.core.definition.QueryDefinition;
import java.util.Map;

/** What was run, for the audit: the source, the text and the values, cut at a length. */
final class RunWords {
    private static final int MOST_CHARACTERS = 20_000;

    private RunWords() {}

    static String of(QueryDefinition query, Map<String, String> values) {
        String words = "source " + query.source() + (values.isEmpty() ? "" : ", values " + values) + "\n" + query.sql();
        return words.length() <= MOST_CHARACTERS ? words : words.substring(0, MOST_CHARACTERS) + "…";
    }
}
