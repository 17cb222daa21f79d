package dev.oddsentry.core.extract;

import java.util.Locale;

/** Which rows a file of a message holds. */
public enum FileRows {
    /** Those that the message reports. */
    UPDATES,
    /** All open findings, those that the message reports among them. */
    OPEN,
    /** The whole report: all rows of the query, or all groups, with the exceptions marked. */
    ALL;

    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }
}
