package dev.oddsentry.core.condition;

import dev.oddsentry.core.time.Span;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** The words of the language that cannot stand for a column unless quoted, and the units of time. */
final class Words {
    static final Map<String, Span.Unit> UNITS = units();

    static final Set<String> RESERVED = Stream.of(
                    "and", "or", "not", "is", "null", "true", "false", "between", "in", "like", "escape", "matches",
                    "case", "when", "then", "else", "end")
            .collect(Collectors.toUnmodifiableSet());

    private Words() {}

    private static Map<String, Span.Unit> units() {
        var units = new HashMap<String, Span.Unit>();
        for (var unit : Span.Unit.values()) {
            String word = unit.name().toLowerCase(Locale.ROOT);
            units.put(word, unit);
            units.put(word + "s", unit);
        }
        return Map.copyOf(units);
    }
}
