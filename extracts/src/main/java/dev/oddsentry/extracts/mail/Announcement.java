package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.FileRows;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.extracts.chart.Chart;
import dev.oddsentry.extracts.words.Phrases;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Everything one mail says about one rule's news.
 *
 * @param greeting to whom it is written, as the first line; null for nobody in particular
 * @param slot the instant the check stands for
 * @param news the rows that are told, in the layout's order; none where all is quiet
 * @param standing what was told before and is open, where the mail shows that too
 * @param whole all rows of the query with the exceptions marked, where the mail shows them too
 * @param mostRows how many of the news stand in the mail itself
 * @param linkOnly whether the mail leads to the rows and has none of them
 * @param own what a person wrote in place of the usual words
 * @param open how many findings are open now, those told included
 * @param leftOut how many a mark keeps out of a full report
 * @param because what makes an exception, as a clause that says of what: {@code for these rows: late by more than 15 min}
 * @param notCounted what is unknown, as sentences; empty for nothing
 * @param habit what else the reader may expect
 * @param since the slot of the report before; null for the first
 * @param next the next slot; null if there is none
 * @param chart how what the rule measures moved; null for none
 * @param also rows of other queries
 * @param files that go with it, or would
 * @param sentTo everyone who is sent it, each in words; empty if it is one recipient alone
 * @param links to where more is seen
 */
public record Announcement(
        String title,
        @Nullable String greeting,
        String owner,
        ZoneId zone,
        Instant slot,
        Extract news,
        List<Extract.Row> standing,
        List<Extract.Row> whole,
        int mostRows,
        boolean linkOnly,
        Own own,
        long open,
        int leftOut,
        String because,
        String notCounted,
        Habit habit,
        @Nullable Instant since,
        @Nullable Instant next,
        @Nullable Chart chart,
        List<Also> also,
        Files files,
        List<String> sentTo,
        Links links) {

    /**
     * Rows of another query, which nothing evaluated.
     *
     * @param rows all of them
     * @param most how many stand in the mail
     */
    public record Also(String title, Extract rows, int most) {
        long all() {
            return rows.rows().size();
        }
    }

    /**
     * Names of files.
     *
     * @param attached with the rows that each holds, or one with all that is packed
     * @param others those with rows of other queries
     * @param encrypted whether those that are attached open with a password alone
     * @param tooGreat those that stay behind the link, since a mail cannot carry them
     * @param byLink those that stay behind the link, since the reader wanted it so
     * @param instead those that are workbooks, since they are too long for a PDF
     */
    public record Files(
            List<Attached> attached,
            List<String> others,
            boolean encrypted,
            List<String> tooGreat,
            List<String> byLink,
            List<String> instead) {
        public static final Files NONE = new Files(List.of(), List.of(), false, List.of(), List.of(), List.of());

        public static Files attached(List<Attached> files) {
            return new Files(files, List.of(), false, List.of(), List.of(), List.of());
        }

        /** @param rows null of an archive with several kinds of file */
        public record Attached(String name, @Nullable FileRows rows) {}
    }

    /**
     * Where more is seen.
     *
     * @param findings all open findings, behind log-in
     * @param archive this report as it was, behind log-in; null for nowhere
     * @param leave a page with one button that stops these mails for this reader; null where readers may not
     * @param own a page with all that this reader gets, where they change it; null for mail that is to nobody else
     */
    public record Links(
            String findings,
            @Nullable String archive,
            @Nullable String leave,
            @Nullable String own) {
        public static Links to(String findings) {
            return new Links(findings, null, null, null);
        }
    }

    /**
     * Each null for the usual.
     *
     * @param opening above the rows
     * @param closing below them
     */
    public record Own(
            @Nullable String subject,
            @Nullable String opening,
            @Nullable String closing) {
        public static final Own NONE = new Own(null, null, null);
    }

    /**
     * What the rule tells, and how often: a promise to the reader.
     *
     * @param evenIfNothing whether a message comes even if there is nothing to tell
     * @param remindEvery such as {@code 3 days}; null for never
     */
    public record Habit(
            Tells tells,
            boolean evenIfNothing,
            Set<UpdateKind> reports,
            @Nullable String remindEvery) {}

    /** What a rule tells each time. */
    public enum Tells {
        UPDATES,
        EVERYTHING_OPEN,
        /** Its rows, as a plain report. */
        ROWS
    }

    /** {@code true} if these are the rows of a query as they are, without severities and updates. */
    boolean isPlainReport() {
        return habit.tells() == Tells.ROWS;
    }

    /** The Content-ID of the chart. */
    public static final String CHART = "chart";

    /** Rows said in the mail itself unless the layout says how many; the first come first, the others are in the attachment and behind the link. */
    public static final int MOST_ROWS = 50;

    /** That so many rows were not evaluated, in that language; empty for none. */
    public static String unknown(Language language, long rows) {
        return rows == 0 ? "" : Phrases.in(language).of("unknown", rows);
    }

    long openButNotTold() {
        long openTold = news.rows().stream().filter(row -> !row.isOver()).count();
        return Math.max(0, open - openTold - leftOut);
    }

    /** The same with fewer rows in the mail. */
    public Announcement withMostRows(int fewer) {
        return new Announcement(
                title,
                greeting,
                owner,
                zone,
                slot,
                news,
                standing,
                whole,
                fewer,
                linkOnly,
                own,
                open,
                leftOut,
                because,
                notCounted,
                habit,
                since,
                next,
                chart,
                also.stream()
                        .map(each -> new Also(each.title(), each.rows(), Math.min(fewer, each.most())))
                        .toList(),
                files,
                sentTo,
                links);
    }
}
