package dev.oddsentry.core.extract;

import java.util.Collections;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;

/** What an extract says of each row besides its columns. */
public enum Beside {
    SEVERITY,
    NEWS;

    public static final Set<Beside> ALL = Collections.unmodifiableSet(EnumSet.allOf(Beside.class));

    /** As documents have it. */
    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }
}
