package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.TriggersDefinition.After;
import dev.oddsentry.core.definition.TriggersDefinition.Outcome;
import dev.oddsentry.core.definition.TriggersDefinition.ReadyWhen;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.schedule.RecurrenceWords;
import dev.oddsentry.core.time.Span;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/** When a rule is checked, in plain English. */
public final class ScheduleWords {
    private ScheduleWords() {}

    /** Everything that begins a check of the rule. */
    public static String of(RuleDefinition rule) {
        var phrases = of(rule.triggers());
        boolean onOccasionsAlone =
                rule.schedule().isOnDemandOnly() && rule.triggers().startsChecks();
        if (!onOccasionsAlone) phrases.addFirst(of(rule.schedule()));
        return String.join("; ", phrases);
    }

    public static String of(ScheduleDefinition schedule) {
        if (schedule.isOnDemandOnly()) return "on demand only";
        var words = new ArrayList<String>();
        LocalDateTime start = schedule.start() == null ? schedule.also().getFirst() : schedule.start();
        schedule.recur().forEach(rule -> words.add(RecurrenceWords.of(rule, start)));
        schedule.workingDays()
                .forEach(number -> words.add("on working day " + number + " of each month at " + start.toLocalTime()));
        schedule.also().forEach(local -> words.add("on " + local.toLocalDate() + " at " + local.toLocalTime()));
        String all = String.join(", and ", words);
        if (schedule.onHoliday() != null) {
            all += switch (schedule.onHoliday()) {
                case NEXT_WORKING_DAY -> ", moved to the next working day";
                case PREVIOUS_WORKING_DAY -> ", moved to the previous working day";
                case SKIP -> ", on working days only";
            };
        }
        var until = schedule.until();
        if (until != null)
            all += ", until " + until.toLocalDate() + " " + until.toLocalTime().truncatedTo(ChronoUnit.MINUTES);
        int left = schedule.except().size() + schedule.exceptDates().size();
        return left == 0 ? all : all + ", without " + left + (left == 1 ? " date" : " dates");
    }

    /** One phrase for each, such as "when sailings-loaded is reported"; the last says what a check waits for. */
    private static List<String> of(TriggersDefinition occasions) {
        var phrases = new ArrayList<String>();
        occasions.events().forEach(event -> phrases.add("when " + event + " is reported"));
        occasions.after().forEach(after -> phrases.add(of(after)));
        var ready = occasions.ready();
        if (ready != null) phrases.add(of(ready));
        return phrases;
    }

    private static String of(After after) {
        if (after.on().equals(After.USUAL)) return "after each check of " + after.rule();
        return "after a check of " + after.rule() + " that "
                + after.on().stream().sorted().map(ScheduleWords::of).collect(Collectors.joining(" or "));
    }

    private static String of(Outcome outcome) {
        return switch (outcome) {
            case FIRED -> "fired";
            case QUIET -> "was quiet";
            case FAILED -> "failed";
            case NO_ROWS -> "returned no rows";
        };
    }

    private static String of(ReadyWhen ready) {
        return "each once " + ready.query() + " returns a row, asked every "
                + MinimumDuration.text(Span.between(ready.every())) + " for "
                + MinimumDuration.text(Span.between(ready.until()));
    }
}
