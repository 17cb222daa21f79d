package dev.oddsentry.core.definition;

import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.finding.Severity;
import java.time.ZoneId;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * One message with the updates of several rules, at its own times: an audience of each rule that gets messages at these times alone.
 *
 * @param rules their names, in the order of the message
 * @param statement null if it reports updates alone
 * @param sendImmediately updates of this severity or higher are sent as soon as a check finds them; null if all wait
 */
public record RoundUpDefinition(
        @Nullable String id,
        String name,
        String title,
        String owner,
        List<String> visibleTo,
        ZoneId zone,
        Language language,
        List<String> rules,
        List<String> to,
        @Nullable Statement statement,
        @Nullable Severity sendImmediately,
        ReaderOptions readers,
        ScheduleDefinition schedule)
        implements Definition {

    /** Whether recipients get an unsubscribe link, and what else they may not choose. */
    public record ReaderOptions(boolean allowUnsubscribe, List<ReaderChoice> refusedChoices) {
        public List<ReaderChoice> choices() {
            return ReaderChoice.OF_ROUND_UPS.stream()
                    .filter(choice -> !refusedChoices.contains(choice))
                    .toList();
        }
    }

    /** How a round-up states how its rules were checked. Such a round-up is also sent without updates. */
    public enum Statement {
        /** Below the updates. */
        WITH_UPDATES,
        /** In place of updates, which it does not report. */
        ONLY
    }

    /** {@code true} if the updates of its rules are for it to report. */
    public boolean reportsUpdates() {
        return statement != Statement.ONLY;
    }

    @Override
    public Kind kind() {
        return Kind.ROUND_UP;
    }

    @Override
    public RoundUpDefinition withId(String newId) {
        return new RoundUpDefinition(
                newId,
                name,
                title,
                owner,
                visibleTo,
                zone,
                language,
                rules,
                to,
                statement,
                sendImmediately,
                readers,
                schedule);
    }

    /** The names of the definitions of a kind that it needs to be there. */
    public Set<String> names(Kind of) {
        return switch (of) {
            case RULE -> Set.copyOf(rules);
            case CALENDAR -> schedule.calendar() == null ? Set.of() : Set.of(schedule.calendar());
            case RECIPIENT_LIST -> MailAddress.lists(to);
            case QUERY, THRESHOLD, LAYOUT, ROUND_UP -> Set.of();
        };
    }
}
