package dev.oddsentry.service.backtests;

import dev.oddsentry.core.definition.MemoryDefinition;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a rule would have come to over past slots, calculated on the data as it is today.
 *
 * @param beyondStart when the rule's schedule starts, where the stretch begins before that; null otherwise
 * @param warmUp slots before {@code from} that were run and not counted
 */
public record BackTestResult(
        Instant from, Instant to, int warmUp, @Nullable Instant beyondStart, List<VariantResult> variants) {

    /**
     * @param thresholds those on trial; none for the rule as it is
     * @param exceptions the condition on trial; null for the rule's own
     * @param without the setting of the memory that is left out; null for none
     * @param messages how many checks would have fired
     * @param updates how many findings their mails would have told
     * @param slots those that would have fired, or that found or could not evaluate something
     */
    record VariantResult(
            Map<String, BigDecimal> thresholds,
            @Nullable String exceptions,
            MemoryDefinition.@Nullable Setting without,
            int checks,
            int messages,
            int updates,
            long highestExceptions,
            int unevaluated,
            List<SlotResult> slots) {}

    record SlotResult(Instant slot, long exceptions, long critical, int updates, long unevaluated) {}
}
