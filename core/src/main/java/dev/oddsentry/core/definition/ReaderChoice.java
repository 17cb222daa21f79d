package dev.oddsentry.core.definition;

import java.util.Arrays;
import java.util.Collection;
import java.util.List;

/** What a recipient may choose for themselves, by the link in each message. To unsubscribe is allowed by a field of its own. */
public enum ReaderChoice {
    /** No message until a date; then one with all that came meanwhile. */
    PAUSE,
    /** One message a day or a week with all that came meanwhile. */
    COLLECT,
    /** The files behind the link to the report instead of attached. */
    LINK;

    /** A round-up has no files. */
    static final List<ReaderChoice> OF_ROUND_UPS = List.of(PAUSE, COLLECT);

    static List<ReaderChoice> allBut(Collection<ReaderChoice> refused) {
        return Arrays.stream(values())
                .filter(choice -> !refused.contains(choice))
                .toList();
    }
}
