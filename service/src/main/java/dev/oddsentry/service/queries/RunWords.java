package dev.oddsentry.service.queries;

import dev.oddsentry.core.definition.QueryDefinition;
import java.util.Map;

/** What was run, for the audit: the source, the text and the values, cut at a length. */
public final class RunWords {
    private static final int MOST_CHARACTERS = 20_000;

    private RunWords() {}

    public static String of(QueryDefinition query, Map<String, String> values) {
        String words = "source " + query.source() + (values.isEmpty() ? "" : ", values " + values) + "\n" + query.sql();
        return cut(words);
    }

    /** A text as the audit keeps it, such as the document of a preview. */
    public static String cut(String words) {
        return words.length() <= MOST_CHARACTERS ? words : words.substring(0, MOST_CHARACTERS) + "…";
    }
}
