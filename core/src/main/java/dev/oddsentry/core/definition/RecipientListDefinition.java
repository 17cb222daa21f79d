package dev.oddsentry.core.definition;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Recipients that several rules mail under one name.
 *
 * @param recipients addresses, or references to teams and people; never to another list
 */
public record RecipientListDefinition(
        @Nullable String id,
        String name,
        String title,
        @Nullable String owner,
        List<String> visibleTo,
        List<String> recipients)
        implements Definition {

    @Override
    public Kind kind() {
        return Kind.RECIPIENT_LIST;
    }

    @Override
    public RecipientListDefinition withId(String newId) {
        return new RecipientListDefinition(newId, name, title, owner, visibleTo, recipients);
    }
}
