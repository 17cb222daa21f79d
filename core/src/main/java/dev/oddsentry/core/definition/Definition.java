package dev.oddsentry.core.definition;

import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** A document that people write and keep: read and written whole, every save a revision. */
public sealed interface Definition
        permits CalendarDefinition,
                QueryDefinition,
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
        ROUND_UP;

        /** As documents and addresses have it. */
        public String code() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    Kind kind();

    @Nullable
    String id();

    String name();

    String title();

    Definition withId(String id);
}
