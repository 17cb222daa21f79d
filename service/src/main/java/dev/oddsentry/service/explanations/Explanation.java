package dev.oddsentry.service.explanations;

import dev.oddsentry.core.condition.Verdict;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.service.handling.FindingHandling;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.layouts.SeverityLook;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The whole story of one identity.
 *
 * @param identity in words
 * @param reason the answer in one or two sentences
 * @param now what memory holds of it; null if no check ever found it
 * @param present its row in the source now
 * @param events oldest first
 */
public record Explanation(
        String rule,
        String zone,
        String identity,
        String reason,
        @Nullable ExplainedFinding now,
        ExplainedRow present,
        List<ExplanationEvent> events) {

    /**
     * @param lastConfirmed the slot of the rule's last good check, which found it so
     * @param unreported whether an update waits for a later check
     * @param reportedAt the slot of its last report; null if never reported
     * @param lastReportedAt the slot of the last message that reported it; null if none did
     */
    public record ExplainedFinding(
            long finding,
            FindingState state,
            Severity severity,
            SeverityLook look,
            Instant openedAt,
            Instant changedAt,
            @Nullable Instant lastConfirmed,
            boolean noData,
            boolean unreported,
            @Nullable Instant reportedAt,
            @Nullable Instant lastReportedAt,
            List<FindingHandling.HandlingEntry> handling) {}

    /**
     * @param verdict of the exceptions' condition; null where the present result has no such row
     * @param failure why the source could not be asked; null if it could
     */
    public record ExplainedRow(
            Instant at,
            @Nullable Verdict verdict,
            @Nullable Severity severity,
            @Nullable SeverityLook look,
            List<ExplainedPart> parts,
            List<ExplainedCell> cells,
            @Nullable String failure) {}

    /** @param text with its unit, in the rule's zone; null if the value is missing */
    public record ExplainedCell(
            String column, String label, @Nullable String text) {}

    /**
     * One part of the condition and its value for the row.
     *
     * @param sentence the part in plain English
     */
    public record ExplainedPart(String text, String sentence, Verdict verdict) {}

    /** What an event is about. */
    public enum About {
        FINDING,
        MESSAGE,
        HANDLING,
        EDIT,
        THRESHOLD
    }

    /**
     * @param at the slot of a check's event, the instant of a person's
     * @param text the event in plain English
     */
    public record ExplanationEvent(
            Instant at,
            About about,
            String text,
            @Nullable CheckId check,
            @Nullable MessageId message) {}
}
