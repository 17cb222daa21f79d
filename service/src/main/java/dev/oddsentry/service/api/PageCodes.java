package dev.oddsentry.service.api;

import dev.oddsentry.service.db.PagePlace;
import dev.oddsentry.service.web.RefusedException;

/** The parameter {@code after} of lists that are given page by page. */
public final class PageCodes {
    private PageCodes() {}

    /** @throws RefusedException if it is not a value of {@code next} */
    public static PagePlace read(String after) {
        return PagePlace.read(after).orElseThrow(() -> RefusedException.notAPosition(after));
    }
}
