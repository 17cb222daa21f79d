package dev.oddsentry.core.extract;

import java.util.Collections;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;

/** What an extract says of each row besides its columns. */
public enum ExtraColumn {
    SEVERITY,
    UPDATE;

    public static final Set<ExtraColumn> ALL = Collections.unmodifiableSet(EnumSet.allOf(ExtraColumn.class));

    /** As documents have it. */
    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }
}
