package dev.oddsentry.core.finding;

import java.util.Locale;

/** How bad a finding is, mildest first. */
public enum Severity {
    NOTICE("●"),
    WARNING("◆"),
    CRITICAL("▲");

    private final String sign;

    Severity(String sign) {
        this.sign = sign;
    }

    /** The sign that stands beside the word, so that colour never speaks alone. */
    public String sign() {
        return sign;
    }

    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    public boolean isWorseThan(Severity other) {
        return compareTo(other) > 0;
    }
}
