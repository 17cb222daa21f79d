package dev.oddsentry.service.authoring;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.document.FieldPlaces;
import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.core.memory.Absence;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.schedule.Coverage;
import dev.oddsentry.core.schedule.Coverage.Stretch;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.schedules.Schedules;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What a rule will pass over by the way it is written, though each part of it is right: seen before it happens. */
@Component
class LookAhead {
    /** Enough for the gaps of a rhythm to come round: a month of days, a year of weeks. */
    private static final int SLOTS = 53;

    private static final DateTimeFormatter TIME =
            DateTimeFormatter.ofPattern("EEEE d MMMM yyyy, HH:mm", Locale.ENGLISH);

    private final Schedules schedules;
    private final Clock clock;

    LookAhead(Schedules schedules, Clock clock) {
        this.schedules = schedules;
        this.clock = clock;
    }

    List<Problem> warnings(RuleDefinition rule, QueryDefinition query, CheckedRule conditions, FieldPlaces places) {
        var warnings = new ArrayList<Problem>();
        unseenTime(rule, query, conditions)
                .map(words -> Problem.warning(words, "schedule", places.of("schedule")))
                .ifPresent(warnings::add);
        boolean agesOut = conditions.absence(rule, Parameters.move(rule, query)) == Absence.AGES_OUT;
        if (agesOut && !rule.memory().report().contains(UpdateKind.CHANGED))
            conditions
                    .comingBesideKey()
                    .forEach(column ->
                            warnings.add(Problem.warning(comesBack(column), "memory.key", places.of("memory.key"))));
        return warnings;
    }

    /** Time that lies between the windows of the coming checks. */
    private Optional<String> unseenTime(RuleDefinition rule, QueryDefinition query, CheckedRule conditions) {
        var byWindow = new LinkedHashMap<String, List<Stretch>>();
        for (Instant slot : schedules.of(rule).next(SLOTS, clock.instant())) {
            var moment = schedules.moment(rule, slot);
            try {
                windows(moment, rule, query, conditions)
                        .forEach((name, stretch) -> byWindow.computeIfAbsent(name, _ -> new ArrayList<>())
                                .add(stretch));
            } catch (InvalidDefinitionException periodsEnd) {
                // A relative date by periods goes no further than the calendar's; what lies beyond is not known yet.
                break;
            }
        }
        return byWindow.entrySet().stream()
                .flatMap(each ->
                        Coverage.firstGap(each.getValue()).map(gap -> unseen(each.getKey(), gap, rule.zone())).stream())
                .findFirst();
    }

    private static Map<String, Stretch> windows(
            Moment moment, RuleDefinition rule, QueryDefinition query, CheckedRule conditions) {
        var windows = new LinkedHashMap<String, Stretch>();
        Parameters.stretch(moment, rule, query)
                .filter(stretch -> isWindow(stretch, moment))
                .ifPresent(stretch -> windows.put("the dates of the parameters", stretch));
        conditions.windowsAt(moment).forEach((column, stretch) -> windows.put("the window on " + column, stretch));
        return windows;
    }

    /** A lone date of the slot's own day says as of when, not from when. */
    private static boolean isWindow(Stretch stretch, Moment moment) {
        return stretch.from()
                        .isBefore(moment.today().atStartOfDay(moment.zone()).toInstant())
                || stretch.to().isAfter(moment.slot());
    }

    private static String unseen(String window, Stretch gap, ZoneId zone) {
        return "with this schedule and " + window + ", no check looks at the time from "
                + TIME.format(gap.from().atZone(zone)) + " to "
                + TIME.format(gap.to().atZone(zone))
                + "; look further back, or check more often";
    }

    private static String comesBack(String column) {
        return "a row that was reported, leaves the result and comes back later with another " + column
                + " is not reported again; add " + column + " to the key, or report changed";
    }
}
