package dev.oddsentry.core.memory;

import java.util.Locale;

/** What the first good check of an audience does with what is already there. */
public enum FirstCheck {
    REPORT,
    TREAT_AS_KNOWN;

    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }
}
