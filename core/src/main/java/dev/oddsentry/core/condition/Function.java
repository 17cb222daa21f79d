package dev.oddsentry.core.condition;

import dev.oddsentry.core.value.Type;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * A function of the language.
 *
 * @param signatures one for each number of arguments it takes
 * @param meaning for people, in a few words
 */
record Function(String name, List<Signature> signatures, String meaning) {

    /** What an argument must be. */
    enum Kind {
        NUMBER("number"),
        TEXT("text"),
        MOMENT("date or timestamp");

        private final String word;

        Kind(String word) {
            this.word = word;
        }

        boolean takes(Type type) {
            if (type == Type.NULL) return true;
            return switch (this) {
                case NUMBER -> type == Type.NUMBER;
                case TEXT -> type == Type.TEXT;
                case MOMENT -> type.isMoment();
            };
        }
    }

    /** Given arguments of which none is null; throws {@link ArithmeticException} with words where there is no answer. */
    interface Body {
        @Nullable
        Object apply(Object[] arguments, Moments moments);
    }

    record Signature(List<Kind> parameters, Type result, Body body) {}

    /** {@code round(number), round(number, number)}. */
    String usage() {
        return signatures.stream()
                .map(signature -> signature.parameters().stream()
                        .map(kind -> kind.word)
                        .collect(Collectors.joining(", ", name + "(", ")")))
                .collect(Collectors.joining(" or "));
    }
}
