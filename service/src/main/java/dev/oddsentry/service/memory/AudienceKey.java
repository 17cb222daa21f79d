package dev.oddsentry.service.memory;

import org.jspecify.annotations.Nullable;

/**
 * An audience of one rule.
 *
 * @param split the value of the split's column, as text, empty where it has none; null where the rule is not split
 */
public record AudienceKey(@Nullable String split) {
    public static final AudienceKey WHOLE = new AudienceKey(null);

    public boolean isWhole() {
        return split == null;
    }
}
