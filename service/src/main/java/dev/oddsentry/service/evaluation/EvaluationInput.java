package dev.oddsentry.service.evaluation;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.KnownTable;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.queries.RunningQuery;
import dev.oddsentry.service.sources.Source;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What is asked at one slot, with everything that the answer depends on besides the source's rows.
 *
 * @param known every finding as memory holds it; used up by the calculation
 * @param tick how the rule's good checks are counted at this one
 * @param pending the effect of edits and choices since the last successful check
 */
public record EvaluationInput(
        RuleDefinition rule,
        QueryDefinition query,
        Source source,
        Moment moment,
        Thresholds thresholds,
        KnownTable known,
        MinimumDuration.Tick tick,
        PendingEffect pending,
        PriorMeasurements past,
        Options options) {

    /**
     * Who asks, and what they want kept.
     *
     * @param copy the key of the personal copy that asks; null where the rule has none
     * @param newcomer whether the copy came when others had been checked already
     * @param curious whether a person looks on, who wants to see texts that no row has
     * @param sought the identity of which everything is kept; null for none
     * @param running to follow and cancel the query by; null where nobody does
     * @param wanted the keys of those whose rows are kept though they do not move; null where any row may be wanted
     * @param most how many rows are evaluated; the others are read and passed over, for a sample
     */
    public record Options(
            @Nullable String copy,
            boolean newcomer,
            boolean curious,
            @Nullable Digest sought,
            @Nullable RunningQuery running,
            @Nullable Set<Digest> wanted,
            long most) {

        /** Calculates alone. */
        public static Options of(@Nullable String copy) {
            return new Options(copy, false, false, null, null, null, Long.MAX_VALUE);
        }

        /** A person looks on. */
        public static Options curious(@Nullable PersonalCopy copy, boolean newcomer) {
            return new Options(copy == null ? null : copy.key(), newcomer, true, null, null, null, Long.MAX_VALUE);
        }

        /** A person looks on, to whom so many rows are enough. */
        public static Options sample(@Nullable PersonalCopy copy, long most) {
            return new Options(copy == null ? null : copy.key(), false, true, null, null, null, most);
        }

        public static Options seeking(@Nullable String copy, Digest identity) {
            return new Options(copy, false, false, identity, null, null, Long.MAX_VALUE);
        }
    }
}
