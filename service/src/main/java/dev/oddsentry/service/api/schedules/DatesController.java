package dev.oddsentry.service.api.schedules;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.ScheduleDefinition;
import dev.oddsentry.core.definition.ScheduleWords;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.schedule.OnHoliday;
import dev.oddsentry.core.schedule.Recurrence;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.rules.RuleNames;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.web.RefusedException;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The next dates of a schedule: a rule's or one that is being written. */
@RestController
@RequestMapping(path = "/api", produces = "application/json")
class DatesController {
    private static final int MOST = 1000;

    private final Schedules schedules;
    private final DefinitionStore definitions;
    private final RuleNames names;
    private final Clock clock;

    private final UnknownNames unknown;
    private final Visibility visibility;

    DatesController(
            Schedules schedules,
            DefinitionStore definitions,
            RuleNames names,
            Clock clock,
            UnknownNames unknown,
            Visibility visibility) {
        this.visibility = visibility;
        this.unknown = unknown;
        this.schedules = schedules;
        this.definitions = definitions;
        this.names = names;
        this.clock = clock;
    }

    /** @param local the date in the schedule's zone, with its offset there */
    record SlotView(Instant slot, String local) {}

    /**
     * @param schedule the schedule in plain English
     * @param ends whether there is no date after these
     */
    record SlotList(String schedule, String zone, List<SlotView> slots, boolean ends, List<String> warnings) {}

    /** @param after an instant; now if left out */
    @GetMapping("/rules/{name}/dates")
    SlotList listSlotsOfRule(
            @PathVariable String name,
            @RequestParam(defaultValue = "10") @Min(1) @Max(MOST) int count,
            @RequestParam(required = false) @Nullable Instant after) {
        var rule = definitions.rule(names.idOf(name)).orElseThrow().definition();
        return dates(ScheduleWords.of(rule), rule.schedule(), rule.zone(), after, count);
    }

    /**
     * @param asked {@code recur} (RFC 5545), {@code workingDay}, {@code also} and {@code except} (local), each any number of times;
     *     {@code start}, {@code until} (local), {@code calendar}, {@code onHoliday}
     * @param after an instant; now if left out
     */
    @GetMapping("/dates")
    SlotList listSlots(
            @RequestParam MultiValueMap<String, String> asked,
            @RequestParam(defaultValue = "UTC") String zone,
            @RequestParam(defaultValue = "10") @Min(1) @Max(MOST) int count,
            @RequestParam(required = false) @Nullable Instant after) {
        ZoneId in = read("zone", zone, ZoneId::of, "one of the IANA names, such as Europe/Oslo");
        var schedule = schedule(asked, in);
        return dates(ScheduleWords.of(schedule), schedule, in, after, count);
    }

    private ScheduleDefinition schedule(MultiValueMap<String, String> asked, ZoneId zone) {
        var recur = asked.getOrDefault("recur", List.of());
        var except = asked.getOrDefault("except", List.of());
        String start = asked.getFirst("start");
        String until = asked.getFirst("until");
        String calendar = asked.getFirst("calendar");
        String onHoliday = asked.getFirst("onHoliday");
        if (calendar != null && !isThere(calendar)) throw unknown.of(Kind.CALENDAR, calendar);
        LocalDateTime from =
                start == null ? clock.instant().atZone(zone).toLocalDate().atStartOfDay() : local("start", start);
        for (String rule : recur) check(rule, from, zone);
        return new ScheduleDefinition(
                from,
                recur,
                asked.getOrDefault("workingDay", List.of()).stream()
                        .map(text -> read("workingDay", text, Integer::valueOf, "3 for the third, -1 for the last"))
                        .toList(),
                locals("also", asked.getOrDefault("also", List.of())),
                locals("except", except.stream().filter(text -> !isDate(text)).toList()),
                except.stream()
                        .filter(DatesController::isDate)
                        .map(LocalDate::parse)
                        .toList(),
                until == null ? null : local("until", until),
                calendar,
                onHoliday == null
                        ? null
                        : read(
                                "onHoliday",
                                onHoliday.toUpperCase(Locale.ROOT).replace(' ', '_'),
                                OnHoliday::valueOf,
                                "next_working_day, previous_working_day or skip"),
                null);
    }

    private static void check(String rule, LocalDateTime start, ZoneId zone) {
        try {
            Recurrence.of(rule, start, zone);
        } catch (InvalidDefinitionException notOne) {
            throw RefusedException.invalid(
                    "recur: " + notOne.problems().getFirst().message() + ".");
        }
    }

    private static boolean isDate(String text) {
        return text.strip().matches("\\d{4}-\\d{2}-\\d{2}");
    }

    private static List<LocalDateTime> locals(String what, List<String> texts) {
        return texts.stream().map(text -> local(what, text)).toList();
    }

    private static LocalDateTime local(String what, String text) {
        return read(what, text.strip().replace(' ', 'T'), LocalDateTime::parse, "like 2026-01-05T05:40");
    }

    private interface Reads<T> {
        T read(String text);
    }

    private static <T> T read(String what, String text, Reads<T> reads, String right) {
        try {
            return reads.read(text);
        } catch (DateTimeException | IllegalArgumentException notOne) {
            throw RefusedException.invalid(what + ": \"" + text + "\" cannot be read; write " + right + ".");
        }
    }

    private SlotList dates(String words, ScheduleDefinition schedule, ZoneId zone, @Nullable Instant after, int count) {
        var evaluation = schedules.of(schedule, zone);
        var found = evaluation.next(count, after == null ? clock.instant() : after);
        var warnings = new ArrayList<String>();
        schedules.runsOut(schedule, clock.instant().atZone(zone).toLocalDate()).ifPresent(warnings::add);
        return new SlotList(
                words,
                zone.getId(),
                found.stream()
                        .map(slot -> new SlotView(
                                slot, slot.atZone(zone).toOffsetDateTime().toString()))
                        .toList(),
                found.size() < count,
                warnings);
    }

    private boolean isThere(String calendar) {
        return definitions.calendar(calendar).isPresent() && visibility.now().includes(Kind.CALENDAR, calendar);
    }
}
