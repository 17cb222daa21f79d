package dev.oddsentry.core.definition;

import dev.oddsentry.core.memory.Absence;
import dev.oddsentry.core.memory.FirstCheck;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.time.Span;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What a rule remembers of its findings, and which updates it reports.
 *
 * @param key the columns that identify a finding; empty where equal rows are numbered
 * @param watch the columns whose changes count; empty for those that the conditions read
 * @param absence null for the default, which depends on whether anything in the rule moves with the slot
 * @param openAfter how long an exception must last to open a finding
 * @param clearAfter how long an open finding must be absent to clear
 * @param confirmAfter the number of slots for which a finding must stay cleared or improved before that counts
 * @param remindEvery how long after its last report an open finding is reported again; null for never
 * @param safetyLimits when a check awaits approval
 * @param forgetAfter how long an aged-out finding is kept; null for the operator's setting
 */
public record MemoryDefinition(
        RuleDefinition.Mode mode,
        List<String> key,
        List<String> watch,
        Set<UpdateKind> report,
        @Nullable Absence absence,
        MinimumDuration openAfter,
        MinimumDuration clearAfter,
        int confirmAfter,
        @Nullable Span remindEvery,
        SafetyLimits safetyLimits,
        FirstCheck firstCheck,
        @Nullable Span forgetAfter) {
    /** What a rule may say and need not, by its name in documents. */
    public enum Setting {
        OPEN_AFTER,
        CLEAR_AFTER,
        CONFIRM_AFTER,
        REMIND_EVERY;

        public String code() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** The same as if it did not say this. */
    public MemoryDefinition without(Setting setting) {
        return new MemoryDefinition(
                mode,
                key,
                watch,
                report,
                absence,
                setting == Setting.OPEN_AFTER ? MinimumDuration.NONE : openAfter,
                setting == Setting.CLEAR_AFTER ? MinimumDuration.NONE : clearAfter,
                setting == Setting.CONFIRM_AFTER ? 1 : confirmAfter,
                setting == Setting.REMIND_EVERY ? null : remindEvery,
                safetyLimits,
                firstCheck,
                forgetAfter);
    }

    /** The same, with exceptions that open at once and absences that clear at once. */
    MemoryDefinition withoutMinimumDurations() {
        return new MemoryDefinition(
                mode,
                key,
                watch,
                report,
                absence,
                MinimumDuration.NONE,
                clearAfter,
                1,
                remindEvery,
                safetyLimits,
                firstCheck,
                forgetAfter);
    }

    /**
     * @param maxClearedPercent of the open findings, at one check; null for no limit
     * @param maxOpened findings at one check; null for no limit
     */
    public record SafetyLimits(
            @Nullable Integer maxClearedPercent, @Nullable Integer maxOpened) {
        /** Below this number, findings clear without a limit. */
        public static final int LEAST_CLEARED = 20;

        public static final int USUAL_PERCENT = 50;

        /** The limit that a check with these counts exceeds, in words; empty if none. */
        public Optional<String> exceededBy(long openBefore, long cleared, long opened) {
            if (maxClearedPercent != null && cleared >= LEAST_CLEARED && cleared * 100 > openBefore * maxClearedPercent)
                return Optional.of(cleared + " of " + openBefore + " open findings would clear at once, more than "
                        + maxClearedPercent + " %");
            if (maxOpened != null && opened > maxOpened)
                return Optional.of(opened + " findings would open at once, more than " + maxOpened);
            return Optional.empty();
        }
    }
}
