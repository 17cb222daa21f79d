package dev.oddsentry.core.memory;

import java.util.Locale;

/** A kind of update: a difference between the current state and the last report, in the order of messages. */
public enum UpdateKind {
    NEW,
    RETURNED,
    WORSENED,
    /** Of a lower severity than was reported, after {@code confirm_after}. */
    IMPROVED,
    /** Other values in the watched columns. */
    CHANGED,
    CLEARED,
    /** It belongs to another audience now. */
    MOVED,
    /** Nothing differs, but the last report is so long ago that it is reported again. */
    REMINDER;

    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }
}
