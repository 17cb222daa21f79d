package dev.oddsentry.core.definition;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.util.List;
import java.util.UUID;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/** The fields that every kind of document has. */
record CommonFields(@Nullable String id, String name, String title) {

    static CommonFields read(Fields top) {
        String id = top.parsed(
                        "id", checked(CommonFields::isId, "an id is a UUID; leave it out and the service gives one"))
                .orElse(null);
        String name = top.requiredText("name", "late-sailings");
        if (!name.isEmpty()) {
            top.parsed("name", CommonFields::checkName);
        }
        return new CommonFields(id, name, top.text("title").orElse(name));
    }

    static String checkName(String text) {
        return checked(
                        CommonFields::isName,
                        "a name has lower-case letters, digits, hyphens and underscores. Example: late-sailings")
                .apply(text);
    }

    private static UnaryOperator<String> checked(Predicate<String> fits, String right) {
        return text -> {
            if (fits.test(text)) return text;
            throw new InvalidDefinitionException(List.of(Problem.error("\"" + text + "\": " + right, "", null)));
        };
    }

    private static boolean isName(String text) {
        return text.matches("[a-z0-9][a-z0-9_-]{0,79}");
    }

    private static boolean isId(String text) {
        try {
            return UUID.fromString(text).toString().equals(text);
        } catch (IllegalArgumentException notOne) {
            return false;
        }
    }
}
