package dev.oddsentry.core.document;

import dev.oddsentry.core.problem.InvalidDefinitionException;

/** The names that definitions have in commands, addresses and other documents. */
public final class Names {
    /** As JSON Schema takes it. */
    static final String PATTERN = "^[a-z0-9][a-z0-9_-]{0,79}$";

    private Names() {}

    public static boolean isOne(String text) {
        return text.matches(PATTERN);
    }

    /** @throws InvalidDefinitionException if the text is not a name */
    public static String check(String text) {
        if (isOne(text)) return text;
        throw InvalidDefinitionException.of("\"" + text
                + "\": a name has lower-case letters, digits, hyphens and underscores. Example: late-sailings");
    }
}
