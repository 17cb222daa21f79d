package dev.oddsentry.core.definition;

import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** A document that people write and keep: read and written whole, every save a revision. */
public sealed interface Definition
        permits CalendarDefinition,
                QueryDefinition,
                RecipientListDefinition,
                RoundUpDefinition,
                RuleDefinition,
                SharedLayoutDefinition,
                ThresholdDefinition {
    enum Kind {
        QUERY,
        RULE,
        THRESHOLD,
        CALENDAR,
        LAYOUT,
        RECIPIENT_LIST,
        ROUND_UP;

        /** As documents and addresses have it. */
        public String code() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }

        /** In a sentence. */
        public String words() {
            return this == RECIPIENT_LIST ? "list of recipients" : code();
        }
    }

    Kind kind();

    @Nullable
    String id();

    String name();

    String title();

    /** The team that it belongs to; null for what every team shares. */
    @Nullable
    String owner();

    /** The teams that see it, with its owner; empty where everybody does. */
    List<String> visibleTo();

    Definition withId(String id);
}
