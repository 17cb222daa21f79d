package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.memory.NewsKind;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Everything one mail says about one rule's news.
 *
 * @param greeting to whom it is written, as the first line; null for nobody in particular
 * @param slot the instant the check stands for
 * @param news the rows that are told, worst first
 * @param open how many findings are open now, those told included
 * @param leftOut how many a mark keeps out of a full report
 * @param because what makes an exception, as a clause in plain English that says of what: {@code for these rows: late by more than 15 min}
 * @param notCounted what nobody can tell about, as sentences; empty for nothing
 * @param habit what else the reader may expect
 * @param since the slot of the report before; null for the first
 * @param next the next slot; null if there is none
 * @param attachment name of the attached file; null for none
 * @param link where all open findings are seen, behind log-in
 */
public record Announcement(
        String title,
        @Nullable String greeting,
        String owner,
        ZoneId zone,
        Instant slot,
        Extract news,
        long open,
        int leftOut,
        String because,
        String notCounted,
        Habit habit,
        @Nullable Instant since,
        @Nullable Instant next,
        @Nullable String attachment,
        String link) {

    /**
     * What the rule tells, and how often: a promise to the reader.
     *
     * @param remindEvery such as {@code 3 days}; null for never
     */
    public record Habit(
            boolean everythingEachTime,
            Set<NewsKind> reports,
            @Nullable String remindEvery) {}

    /** Rows said in the mail itself; the worst come first, the others are in the attachment and behind the link. */
    static final int MOST_ROWS = 50;

    long openButNotTold() {
        long openTold = news.rows().stream().filter(row -> !Wording.isOver(row)).count();
        return Math.max(0, open - openTold - leftOut);
    }
}
