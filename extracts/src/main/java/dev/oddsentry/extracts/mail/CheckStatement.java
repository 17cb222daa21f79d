package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.SeverityLooks;
import dev.oddsentry.core.finding.Severity;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * How a rule was checked over a while, and what it did not report: whether silence meant that there was nothing to report.
 *
 * @param to exclusive
 * @param gaps the times of which no check can say anything, oldest first
 */
public record CheckStatement(
        String title,
        ZoneId zone,
        Instant from,
        Instant to,
        boolean paused,
        Checks checks,
        Reported reported,
        Unreported unreported,
        Open open,
        List<Gap> gaps) {

    /**
     * @param good checks that ended well
     * @param covered scheduled times that had no check of their own, since a later one covered them
     * @param failed checks that failed, were stopped, or failed for some personal copies
     * @param leastRows that a good check read; null without one, as {@code mostRows}
     * @param unknownRows the most that one check could not evaluate; the same for groups
     */
    public record Checks(
            long good,
            long covered,
            long failed,
            long awaitingApproval,
            @Nullable Long leastRows,
            @Nullable Long mostRows,
            long unknownRows,
            long unknownGroups) {}

    /**
     * @param updates null for a plain report, which has none
     * @param undelivered messages that did not reach all their recipients
     * @param waiting messages that are on hold or not sent yet
     */
    public record Reported(@Nullable Long updates, long messages, long undelivered, long waiting) {}

    /**
     * Findings with an update that no message has reported, by the reason, as they are now.
     *
     * @param lessSevere than {@code send_from}
     * @param waiting for another reason, such as {@code confirm_after}
     * @param pending exceptions that have not lasted long enough
     * @param known treated as known within the time
     */
    public record Unreported(long snoozed, long accepted, long lessSevere, long waiting, long pending, long known) {
        public static final Unreported NOTHING = new Unreported(0, 0, 0, 0, 0, 0);
    }

    /**
     * Findings that are open now.
     *
     * @param severities how they are named
     * @param snoozed of them; the same for accepted
     */
    public record Open(Map<Severity, Long> bySeverity, SeverityLooks severities, long snoozed, long accepted) {
        public static final Open NOTHING = new Open(Map.of(), SeverityLooks.USUAL, 0, 0);

        long all() {
            return bySeverity.values().stream().mapToLong(Long::longValue).sum();
        }
    }

    /**
     * @param after the last good check before it; null if there was none
     * @param until the first good check after it; null if there was none yet
     */
    public record Gap(@Nullable Instant after, @Nullable Instant until) {}

    /** {@code true} if silence meant that there was nothing to report. */
    public boolean isComplete() {
        return checks.good() > 0
                && gaps.isEmpty()
                && checks.unknownRows() == 0
                && checks.unknownGroups() == 0
                && reported.undelivered() == 0
                && reported.waiting() == 0;
    }
}
