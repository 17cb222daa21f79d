package dev.oddsentry.core.definition;

import org.jspecify.annotations.Nullable;

/** A layout that several rules use under its name. */
public record SharedLayoutDefinition(@Nullable String id, String name, String title, LayoutDefinition layout)
        implements Definition {

    @Override
    public Kind kind() {
        return Kind.LAYOUT;
    }

    @Override
    public SharedLayoutDefinition withId(String newId) {
        return new SharedLayoutDefinition(newId, name, title, layout);
    }
}
