package dev.oddsentry.service.statements;

import dev.oddsentry.extracts.mail.CheckStatement.Gap;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The times of which no check can say anything: from the last good check before a bad one to the first good one after it. */
final class CheckGaps {
    private CheckGaps() {}

    /** @param good whether it ended well, for all that the rule watches */
    record Ended(Instant slot, boolean good) {}

    /**
     * @param before the slot of the last good check before them; null for none
     * @param ended in the order of their slots
     * @param paused whether nothing is checked any more
     */
    static List<Gap> of(@Nullable Instant before, List<Ended> ended, boolean paused) {
        var gaps = new ArrayList<Gap>();
        Instant lastGood = before;
        boolean open = false;
        for (var check : ended) {
            if (check.good()) {
                if (open) gaps.add(new Gap(lastGood, check.slot()));
                open = false;
                lastGood = check.slot();
            } else open = true;
        }
        if (open || paused) gaps.add(new Gap(lastGood, null));
        return gaps;
    }
}
