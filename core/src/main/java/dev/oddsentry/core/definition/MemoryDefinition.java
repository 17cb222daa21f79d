package dev.oddsentry.core.definition;

import dev.oddsentry.core.memory.Absence;
import dev.oddsentry.core.memory.FirstCheck;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.time.Span;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What a rule remembers of its exceptions, and what of it is reported.
 *
 * @param key the columns of the identity; empty where equal rows are numbered by copy
 * @param watch the columns of the fingerprint; empty for those that the conditions read
 * @param absence null for the default, which depends on whether anything in the rule moves with the slot
 * @param hold how long an exception must last before it is open
 * @param misses how long an open finding must be missed before it clears
 * @param guard how many slots what became better must stay so before that counts; one that comes back within them had not cleared
 * @param remindEvery how long after it was last told an open finding is said again; null for never
 * @param brakes when a check is kept back for a person to look at
 * @param forgetAfter how long a finding is out of sight before it is forgotten; null for the operator's number of days
 */
public record MemoryDefinition(
        RuleDefinition.Mode mode,
        List<String> key,
        List<String> watch,
        Set<UpdateKind> report,
        @Nullable Absence absence,
        MinimumDuration hold,
        MinimumDuration misses,
        int guard,
        @Nullable Span remindEvery,
        Brakes brakes,
        FirstCheck firstCheck,
        @Nullable Span forgetAfter) {
    /** The same without patience: what is there is there at once. */
    MemoryDefinition atOnce() {
        return new MemoryDefinition(
                mode,
                key,
                watch,
                report,
                absence,
                MinimumDuration.NONE,
                misses,
                1,
                remindEvery,
                brakes,
                firstCheck,
                forgetAfter);
    }

    /**
     * @param mostClearedPercent of the open findings, at one check; null for no limit
     * @param mostOpened findings at one check; null for no limit
     */
    public record Brakes(
            @Nullable Integer mostClearedPercent, @Nullable Integer mostOpened) {
        /** Fewer than so many clear without being counted as a share. */
        public static final int LEAST_CLEARED = 20;

        public static final int USUAL_PERCENT = 50;

        /** Why a check with these counts is kept back; empty if it is not. */
        public Optional<String> keepBack(long openBefore, long cleared, long opened) {
            if (mostClearedPercent != null
                    && cleared >= LEAST_CLEARED
                    && cleared * 100 > openBefore * mostClearedPercent)
                return Optional.of(cleared + " of " + openBefore + " open findings would clear at once, more than "
                        + mostClearedPercent + " %");
            if (mostOpened != null && opened > mostOpened)
                return Optional.of(opened + " findings would open at once, more than " + mostOpened);
            return Optional.empty();
        }
    }
}
