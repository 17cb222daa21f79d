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
     * @param difference which findings its messages tell and those of the rule as it is do not, and the other way round; null for the rule as
     *     it is, and in results that are older than this field
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
            @Nullable BackTestDifference difference,
            List<SlotResult> slots) {}

    /**
     * Over the whole stretch, each finding once.
     *
     * @param more how many are told only with what is on trial
     * @param fewer how many are told only by the rule as it is
     * @param firstMore the latest of {@code more}, latest first
     * @param firstFewer the latest of {@code fewer}, latest first
     */
    record BackTestDifference(int more, List<BackTestFinding> firstMore, int fewer, List<BackTestFinding> firstFewer) {}

    /**
     * @param slot at which it would be told last
     * @param finding the first values of its row as messages show it, or its key
     * @param decided the values that made it an exception, in words; empty where every row is one
     */
    public record BackTestFinding(Instant slot, String finding, String decided) {}

    record SlotResult(Instant slot, long exceptions, long critical, int updates, long unevaluated) {}
}
