package dev.oddsentry.core.definition;

import dev.oddsentry.core.time.WorkingDays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Which days are worked, under a name that schedules use. */
public record CalendarDefinition(
        @Nullable String id,
        String name,
        String title,
        @Nullable String owner,
        List<String> visibleTo,
        WorkingDays days)
        implements Definition {

    @Override
    public Kind kind() {
        return Kind.CALENDAR;
    }

    @Override
    public CalendarDefinition withId(String newId) {
        return new CalendarDefinition(newId, name, title, owner, visibleTo, days);
    }
}
