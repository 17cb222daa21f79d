package dev.oddsentry.core.schedule;

import java.util.Locale;

/** What becomes of slots that came due while nobody was there to run them. */
public enum Missed {
    /** One check, at the last of them, that says how many it stands for. */
    LATEST,
    /** One check for each, oldest first. */
    EACH,
    SKIP;

    /** Of more slots than these, the oldest are not made up for. */
    public static final int MOST_MADE_UP_FOR = 50;

    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }
}
