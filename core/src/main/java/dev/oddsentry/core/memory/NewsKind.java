package dev.oddsentry.core.memory;

import java.util.Locale;

/** A name for a difference between what is so now and what was last reported, in the order they are told. */
public enum NewsKind {
    NEW,
    RETURNED,
    WORSENED,
    CLEARED;

    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }
}
