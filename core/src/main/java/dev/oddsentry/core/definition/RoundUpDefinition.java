package dev.oddsentry.core.definition;

import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.finding.Severity;
import java.time.ZoneId;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * One mail with the news of several rules, at times of its own: an audience of each of them that hears at these times alone.
 *
 * @param rules their names, in the order in which the mail tells of them
 * @param atOnce news of this severity or above is not kept for the next time; null to keep all of it
 */
public record RoundUpDefinition(
        @Nullable String id,
        String name,
        String title,
        String owner,
        ZoneId zone,
        Language language,
        List<String> rules,
        List<String> to,
        @Nullable Severity atOnce,
        ScheduleDefinition schedule)
        implements Definition {

    @Override
    public Kind kind() {
        return Kind.ROUND_UP;
    }

    @Override
    public RoundUpDefinition withId(String newId) {
        return new RoundUpDefinition(newId, name, title, owner, zone, language, rules, to, atOnce, schedule);
    }

    /** The names of the definitions of a kind that it needs to be there. */
    public Set<String> names(Kind of) {
        return switch (of) {
            case RULE -> Set.copyOf(rules);
            case CALENDAR -> schedule.calendar() == null ? Set.of() : Set.of(schedule.calendar());
            case QUERY, THRESHOLD, LAYOUT, ROUND_UP -> Set.of();
        };
    }
}
