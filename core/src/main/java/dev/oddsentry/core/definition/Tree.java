package dev.oddsentry.core.definition;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** An ordered tree in which what is empty is left out. */
final class Tree {
    final Map<String, Object> fields = new LinkedHashMap<>();

    Tree put(String name, @Nullable Object value) {
        boolean empty = value == null
                || (value instanceof Collection<?> many && many.isEmpty())
                || (value instanceof Map<?, ?> map && map.isEmpty());
        if (!empty) fields.put(name, value);
        return this;
    }
}
