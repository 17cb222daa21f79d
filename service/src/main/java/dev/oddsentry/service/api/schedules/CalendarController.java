package dev.oddsentry.service.api.schedules;

import dev.oddsentry.core.definition.CalendarDefinition;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.schedule.CalendarFile;
import dev.oddsentry.core.time.WorkingDays;
import dev.oddsentry.service.authoring.Saved;
import dev.oddsentry.service.authoring.Saving;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Calendars: what they say, and holidays read from an iCalendar file. */
@RestController
@RequestMapping(path = "/api/calendars", produces = "application/json")
class CalendarController {
    private static final int YEARS_AHEAD = 5;

    private final DefinitionStore definitions;
    private final Saving saving;
    private final Clock clock;
    private final VisibleDefinitions visible;

    CalendarController(DefinitionStore definitions, Saving saving, Clock clock, VisibleDefinitions visible) {
        this.visible = visible;
        this.definitions = definitions;
        this.saving = saving;
        this.clock = clock;
    }

    record HolidayView(LocalDate date, String name) {}

    /**
     * @param knownUntil the last date that anyone entered
     * @param periods their first days; empty where they are the months
     */
    record CalendarView(
            String name,
            String title,
            int revision,
            List<String> week,
            @Nullable LocalDate knownUntil,
            List<HolidayView> holidays,
            List<LocalDate> extraWorkingDays,
            List<LocalDate> periods,
            List<String> rules) {}

    @GetMapping
    List<CalendarView> listCalendars() {
        var rules = visible.rules();
        return visible.calendars().stream()
                .map(calendar -> {
                    WorkingDays days = calendar.definition().days();
                    return new CalendarView(
                            calendar.definition().name(),
                            calendar.definition().title(),
                            calendar.revision(),
                            days.week().stream().sorted().map(Enum::name).toList(),
                            days.lastKnown(),
                            days.holidays().entrySet().stream()
                                    .map(each -> new HolidayView(each.getKey(), each.getValue()))
                                    .toList(),
                            days.worked().stream().sorted().toList(),
                            List.copyOf(days.periods()),
                            rules.stream()
                                    .map(rule -> rule.definition())
                                    .filter(rule -> calendar.definition()
                                            .name()
                                            .equals(rule.schedule().calendar()))
                                    .map(rule -> rule.name())
                                    .toList());
                })
                .toList();
    }

    /** Adds the whole-day events of a file to the calendar's holidays; what was entered by hand stays. */
    @PostMapping(path = "/{name}/holidays.ics", consumes = "text/calendar")
    Saved addHolidays(
            @AuthenticationPrincipal Person by,
            @PathVariable String name,
            @RequestBody String file,
            @RequestParam(defaultValue = "holidays from an iCalendar file") String reason) {
        var before = definitions.calendar(name).map(each -> each.definition());
        var days = before.map(CalendarDefinition::days).orElse(WorkingDays.MONDAY_TO_FRIDAY);
        var holidays = new TreeMap<>(days.holidays());
        holidays.putAll(holidaysIn(file));
        var after = new CalendarDefinition(
                null,
                name,
                before.map(CalendarDefinition::title).orElse(name),
                before.map(CalendarDefinition::owner).orElse(null),
                before.map(CalendarDefinition::visibleTo).orElse(List.of()),
                new WorkingDays(days.week(), holidays, days.worked(), days.periods()));
        return saving.save(by, Document.print(after), reason, false, null);
    }

    /** The whole-day events of a file, for a form; nothing is saved. */
    @PostMapping(path = "/holidays", consumes = "text/calendar")
    List<HolidayView> readHolidays(@RequestBody String file) {
        return holidaysIn(file).entrySet().stream()
                .map(each -> new HolidayView(each.getKey(), each.getValue()))
                .toList();
    }

    private Map<LocalDate, String> holidaysIn(String file) {
        LocalDate until = clock.instant().atZone(ZoneOffset.UTC).toLocalDate().plusYears(YEARS_AHEAD);
        try {
            return new TreeMap<>(CalendarFile.holidays(file, until));
        } catch (InvalidDefinitionException unreadable) {
            throw RefusedException.invalid("The calendar is unchanged: "
                    + unreadable.problems().getFirst().message() + ".");
        }
    }
}
