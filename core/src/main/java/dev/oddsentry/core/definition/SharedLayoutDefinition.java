package dev.oddsentry.core.definition;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A layout that several rules use under its name.
 *
 * @param privateTo the log-in name of the one person who uses it, for extracts of their own; null where it is everybody's
 */
public record SharedLayoutDefinition(
        @Nullable String id,
        String name,
        String title,
        @Nullable String owner,
        List<String> visibleTo,
        @Nullable String privateTo,
        LayoutDefinition layout)
        implements Definition {

    @Override
    public Kind kind() {
        return Kind.LAYOUT;
    }

    @Override
    public SharedLayoutDefinition withId(String newId) {
        return new SharedLayoutDefinition(newId, name, title, owner, visibleTo, privateTo, layout);
    }
}
