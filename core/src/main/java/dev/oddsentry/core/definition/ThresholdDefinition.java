package dev.oddsentry.core.definition;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A named number that conditions use. Its values are not in the document: they have dates, and people of their own who set them.
 *
 * @param unit shown behind the number, such as {@code min}
 * @param key what its values are kept by, such as {@code route}; empty for a single value
 */
public record ThresholdDefinition(
        @Nullable String id,
        String name,
        String title,
        @Nullable String owner,
        List<String> visibleTo,
        @Nullable String unit,
        @Nullable String description,
        List<String> key)
        implements Definition {

    @Override
    public Kind kind() {
        return Kind.THRESHOLD;
    }

    @Override
    public ThresholdDefinition withId(String newId) {
        return new ThresholdDefinition(newId, name, title, owner, visibleTo, unit, description, key);
    }
}
