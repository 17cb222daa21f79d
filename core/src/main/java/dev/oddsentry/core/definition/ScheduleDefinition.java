package dev.oddsentry.core.definition;

import dev.oddsentry.core.schedule.Missed;
import dev.oddsentry.core.schedule.OnHoliday;
import dev.oddsentry.core.schedule.Recurrence;
import dev.oddsentry.core.schedule.Schedule;
import dev.oddsentry.core.time.WorkingDays;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * When a rule is checked by itself.
 *
 * @param start local in the rule's zone
 * @param recur RFC 5545 recurrence rules
 * @param workingDays one slot a month for each: 3 for its third working day, -1 for its last
 * @param also single local times
 * @param except local times left out; {@code exceptDates} whole days
 * @param calendar the name of the one that says which days are worked; null for Monday to Friday
 * @param onHoliday what becomes of a slot on a day that is not worked; null: it stays
 * @param missed what becomes of slots while the service was down; null for the default, which depends on the window
 */
public record ScheduleDefinition(
        @Nullable LocalDateTime start,
        List<String> recur,
        List<Integer> workingDays,
        List<LocalDateTime> also,
        List<LocalDateTime> except,
        List<LocalDate> exceptDates,
        @Nullable LocalDateTime until,
        @Nullable String calendar,
        @Nullable OnHoliday onHoliday,
        @Nullable Missed missed) {
    public static final ScheduleDefinition ON_DEMAND_ONLY =
            new ScheduleDefinition(null, List.of(), List.of(), List.of(), List.of(), List.of(), null, null, null, null);

    public boolean isOnDemandOnly() {
        return recur.isEmpty() && workingDays.isEmpty() && also.isEmpty();
    }

    /** The same rhythm with a start that is no later: what it would have been had it started before. As it is where its dates are counted. */
    public ScheduleDefinition startingBy(LocalDateTime by, ZoneId zone) {
        boolean counted =
                recur.stream().anyMatch(rule -> rule.toUpperCase(Locale.ROOT).contains("COUNT="));
        if (start == null || !start.isAfter(by) || recur.size() > 1 || counted) return this;
        LocalDateTime earlier = recur.isEmpty() ? by : Recurrence.sameRhythmBy(recur.getFirst(), start, by, zone);
        return new ScheduleDefinition(
                earlier, recur, workingDays, also, except, exceptDates, until, calendar, onHoliday, missed);
    }

    /** @param calendar the one that is named; null where none is */
    public Schedule in(ZoneId zone, @Nullable WorkingDays calendar) {
        if (isOnDemandOnly()) return Schedule.ON_DEMAND_ONLY;
        // Single times need no start.
        LocalDateTime from = start == null ? also.getFirst() : start;
        return Schedule.of(new Schedule.Parts(
                from, zone, recur, workingDays, also, except, exceptDates, until, calendar, onHoliday));
    }
}
