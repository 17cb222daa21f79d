package dev.oddsentry.core.condition;

import dev.oddsentry.core.value.Type;
import java.util.List;

/** The functions that conditions know, for reference pages: from the same table that reads them. */
public final class FunctionTable {
    private FunctionTable() {}

    /**
     * @param usage with the kinds of its arguments, such as {@code round(number) or round(number, number)}
     * @param gives the type of what it gives
     */
    public record Entry(String name, String usage, Type gives, String meaning) {}

    /** In the order in which they are kept. */
    public static List<Entry> all() {
        return Functions.byName().values().stream()
                .map(function -> new Entry(
                        function.name(),
                        function.usage(),
                        function.signatures().getFirst().result(),
                        function.meaning()))
                .toList();
    }
}
