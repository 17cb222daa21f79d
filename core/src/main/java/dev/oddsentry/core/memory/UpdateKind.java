package dev.oddsentry.core.memory;

import java.util.Locale;

/** A name for a difference between the current state and what was last reported, in the order they are told. */
public enum UpdateKind {
    NEW,
    RETURNED,
    WORSENED,
    /** Of a lower severity than was reported, once the guard has run out. */
    IMPROVED,
    /** Other values in the watched columns. */
    CHANGED,
    CLEARED,
    /** It belongs to another audience now. */
    MOVED,
    /** Nothing differs, but it was told so long ago that it is said again. */
    REMINDER;

    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }
}
