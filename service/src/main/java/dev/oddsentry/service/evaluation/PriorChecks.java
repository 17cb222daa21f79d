package dev.oddsentry.service.evaluation;

import dev.oddsentry.core.memory.PendingEffect;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * What earlier checks of a rule, or of one of its personal copies, left for the next one.
 *
 * @param newcomer {@code true} if the copy came after the rule was first checked
 * @param goodSlots the number of good scheduled checks
 * @param lastGoodSlot {@code null} before the first good check
 * @param pending what people did since, which the next check must respect
 */
public record PriorChecks(
        boolean newcomer, long goodSlots, @Nullable Instant lastGoodSlot, PendingEffect pending) {
    public static final PriorChecks NONE = new PriorChecks(false, 0, null, PendingEffect.NONE);
}
