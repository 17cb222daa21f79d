package dev.oddsentry.core.memory;

import java.util.Locale;

/** What it means that a finding's row is no longer in the result. */
public enum Absence {
    /** The row would be there if it were still wrong: the finding clears. */
    CLEARS,
    /** The window moved on: the finding ages out and is not called cleared. */
    AGES_OUT,
    /** Absence says nothing: the finding stays open. */
    STAYS_OPEN;

    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }
}
