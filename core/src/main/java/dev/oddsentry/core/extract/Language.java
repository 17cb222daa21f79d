package dev.oddsentry.core.extract;

import java.util.Locale;

/** The languages in which mail is written, with their ways of writing numbers and dates. */
public enum Language {
    EN(Locale.UK),
    DE(Locale.GERMANY),
    NB(Locale.of("nb", "NO"));

    private final Locale locale;

    Language(Locale locale) {
        this.locale = locale;
    }

    public Locale locale() {
        return locale;
    }

    /** As documents and BCP 47 have it. */
    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }
}
