package dev.oddsentry.service.schedules;

import dev.oddsentry.core.definition.CalendarDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.definition.ScheduleDefinition;
import dev.oddsentry.core.schedule.Schedule;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.time.WorkingDays;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.web.RefusedException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Schedules as they can be calculated with, on the calendars that they name. */
@Component
public class Schedules {
    private static final int WARN_DAYS_AHEAD = 60;

    private final DefinitionStore definitions;
    private final Visibility visibility;

    Schedules(DefinitionStore definitions, Visibility visibility) {
        this.visibility = visibility;
        this.definitions = definitions;
    }

    /** A slot of the rule, in its zone and on its calendar. */
    public Moment moment(RuleDefinition rule, Instant slot) {
        return moment(rule, slot, null);
    }

    /** @param lastGood the slot of the last good check; null before any */
    public Moment moment(RuleDefinition rule, Instant slot, @Nullable Instant lastGood) {
        var days = daysOf(rule.schedule().calendar());
        var moment = days == null ? new Moment(slot, rule.zone()) : new Moment(slot, rule.zone(), days);
        return moment.since(lastGood == null ? startOf(rule) : lastGood);
    }

    /**
     * The moment on a calendar that a person names.
     *
     * @param calendar null or empty for the usual one
     * @throws RefusedException if there is none of that name
     */
    public Moment momentOn(@Nullable String calendar, Instant slot, ZoneId zone) {
        if (calendar == null || calendar.isBlank()) return new Moment(slot, zone);
        var days = definitions
                .calendar(calendar)
                .filter(found -> visibility.now().includes(found.id()))
                .orElseThrow(() -> RefusedException.notFound("There is no calendar \"" + calendar + "\"."))
                .definition()
                .days();
        return new Moment(slot, zone, days);
    }

    /** The start of the rule's schedule; null if it has none. */
    public static @Nullable Instant startOf(RuleDefinition rule) {
        var start = rule.schedule().start();
        return start == null ? null : start.atZone(rule.zone()).toInstant();
    }

    /** Null where the rule names no calendar. */
    public @Nullable Integer revisionOfCalendar(RuleDefinition rule) {
        String name = rule.schedule().calendar();
        return name == null
                ? null
                : definitions.calendar(name).map(Current::revision).orElse(null);
    }

    public Schedule of(RuleDefinition rule) {
        return of(rule.schedule(), rule.zone());
    }

    /** As it would have been before its start, back to that instant and a year before it. */
    public Schedule lookingBack(RuleDefinition rule, Instant from) {
        var by = from.atZone(rule.zone()).toLocalDateTime().minusYears(1);
        return of(rule.schedule().startingBy(by, rule.zone()), rule.zone());
    }

    public Schedule of(ScheduleDefinition schedule, ZoneId zone) {
        return schedule.in(zone, daysOf(schedule.calendar()));
    }

    /** The calendar of that name; null for no name. A calendar that a rule names was there when the rule was saved, and stays. */
    private @Nullable WorkingDays daysOf(@Nullable String calendar) {
        if (calendar == null) return null;
        return definitions
                .calendar(calendar)
                .map(Current::definition)
                .map(CalendarDefinition::days)
                .orElseThrow(() -> new IllegalStateException("no calendar " + calendar));
    }

    /** Says when a calendar's entered dates run out, where slots depend on them and that is near. */
    public Optional<String> runsOut(ScheduleDefinition schedule, LocalDate today) {
        boolean depends =
                schedule.onHoliday() != null || !schedule.workingDays().isEmpty();
        var days = daysOf(schedule.calendar());
        if (!depends || days == null) return Optional.empty();
        LocalDate last = days.lastKnown();
        if (last != null && last.isAfter(today.plusDays(WARN_DAYS_AHEAD))) return Optional.empty();
        return Optional.of("the calendar " + schedule.calendar()
                + (last == null ? " names no holiday" : " names no holiday after " + last)
                + ", so later slots go by the days of the week alone");
    }
}
