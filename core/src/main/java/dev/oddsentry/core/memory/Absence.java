package dev.oddsentry.core.memory;

import java.util.Locale;

/** What it means that a finding's row is no longer in the result. */
public enum Absence {
    /** The row would be there if it were still wrong: the finding clears. */
    PUT_RIGHT,
    /** The window moved on: the finding goes out of sight and is not called cleared. */
    PASSED_BY,
    /** Absence says nothing: the finding stays open. */
    STAYS;

    public String code() {
        return name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }
}
