package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Everything one mail says about the news of several rules.
 *
 * @param slot the time it was made for
 * @param since the slot of the one before; null for the first
 * @param atOnce whether it could not wait for the round-up's time
 * @param sections one for each rule with news, in the order of the round-up
 * @param statements how each rule was checked since the one before; empty where the round-up does not state it
 * @param quiet the titles of the rules without any
 * @param next the next time; null if there is none
 */
public record RoundUp(
        String title,
        String owner,
        ZoneId zone,
        Language language,
        Instant slot,
        @Nullable Instant since,
        boolean atOnce,
        List<Section> sections,
        List<CheckStatement> statements,
        List<String> quiet,
        @Nullable Instant next,
        Links links) {

    /**
     * @param day where all is seen, behind log-in
     * @param leave as {@link Announcement.Links#leave}
     * @param own as {@link Announcement.Links#own}
     */
    public record Links(
            String day, @Nullable String leave, @Nullable String own) {}

    /**
     * One rule's news.
     *
     * @param news the rows that are said, worst first
     * @param more those that are told in number alone; their rows have no cells
     * @param open how many of the rule's findings are open now
     * @param because what makes an exception, as {@link Announcement#because}
     * @param link where the rule's findings are seen
     */
    public record Section(String title, Extract news, List<Extract.Row> more, long open, String because, String link) {
        List<Extract.Row> all() {
            return Stream.concat(news.rows().stream(), more.stream()).toList();
        }
    }

    /** {@code true} if it has no updates, and says how the rules were checked. */
    boolean isStatementAlone() {
        return sections.isEmpty();
    }

    /** The rules of which silence does not mean that there was nothing to report. */
    long incomplete() {
        return statements.stream().filter(each -> !each.isComplete()).count();
    }

    /** Rows of one rule that are said in the mail. */
    public static final int MOST_ROWS = 25;

    List<Extract.Row> rows() {
        return sections.stream().flatMap(section -> section.all().stream()).toList();
    }
}
