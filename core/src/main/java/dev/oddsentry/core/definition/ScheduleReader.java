package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.OccasionsDefinition.After;
import dev.oddsentry.core.definition.OccasionsDefinition.Outcome;
import dev.oddsentry.core.definition.OccasionsDefinition.ReadyWhen;
import dev.oddsentry.core.definition.OccasionsDefinition.WhenEmpty;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.schedule.Missed;
import dev.oddsentry.core.schedule.OnHoliday;
import dev.oddsentry.core.schedule.Recurrence;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Reads when a rule's checks run: at which times, on which occasions, and what they wait for. */
final class ScheduleReader {
    private ScheduleReader() {}

    record Read(ScheduleDefinition times, OccasionsDefinition occasions) {}

    static Read read(Fields fields) {
        var schedule = times(fields, fields.choice("missed", Missed.values()).orElse(null));
        var occasions = new OccasionsDefinition(
                fields.checkedTexts("events", CommonFields::checkName),
                after(fields),
                fields.has("ready_when") ? readyWhen(fields.fields("ready_when")) : null,
                fields.choice("when_empty", WhenEmpty.values()).orElse(WhenEmpty.QUIET));
        fields.refuseOthers();
        return new Read(schedule, occasions);
    }

    /** Times alone, of which only the latest that was missed is made up for. */
    static ScheduleDefinition times(Fields fields) {
        var schedule = times(fields, null);
        fields.refuseOthers();
        return schedule;
    }

    private static ScheduleDefinition times(Fields fields, @Nullable Missed missed) {
        var start = fields.parsed("start", ScheduleReader::localTime);
        var recur = fields.checkedTexts(
                "recur", rule -> Recurrence.of(rule, start.orElse(LocalDateTime.of(2026, 1, 1, 0, 0)), ZoneOffset.UTC));
        var workingDays = new ArrayList<Integer>();
        fields.checkedTexts("working_days", text -> workingDays.add(workingDay(text)));
        if (!recur.isEmpty() || !workingDays.isEmpty()) fields.requiredText("start", "2026-01-01T05:40");
        var also = new ArrayList<LocalDateTime>();
        fields.checkedTexts("also", text -> also.add(localTime(text)));
        var except = new ArrayList<LocalDateTime>();
        var exceptDates = new ArrayList<LocalDate>();
        fields.checkedTexts("except", text -> {
            if (text.strip().length() == "2026-12-24".length()) exceptDates.add(CalendarReader.date(text));
            else except.add(localTime(text));
        });
        return new ScheduleDefinition(
                start.orElse(null),
                recur,
                List.copyOf(workingDays),
                List.copyOf(also),
                List.copyOf(except),
                List.copyOf(exceptDates),
                fields.parsed("until", ScheduleReader::localTime).orElse(null),
                fields.text("calendar").orElse(null),
                fields.choice("on_holidays", OnHoliday.values()).orElse(null),
                missed);
    }

    private static int workingDay(String text) {
        if (text.strip().matches("-?([1-9]|1[0-9]|2[0-3])")) return Integer.parseInt(text.strip());
        throw refused("\"" + text + "\" is not a working day of a month. Examples: 3 (third), -1 (last)");
    }

    private static LocalDateTime localTime(String text) {
        try {
            return LocalDateTime.parse(text.strip().replace(' ', 'T'));
        } catch (DateTimeException notOne) {
            throw refused("\"" + text + "\" is not a local date and time. Example: 2026-01-01T05:40");
        }
    }

    /** A bare name follows its rule after every check that was judged. */
    private static List<After> after(Fields fields) {
        return fields.fieldsOfItems("after", "rule").stream()
                .map(item -> {
                    var rule = item.requiredText("rule", "late-sailings");
                    var on = item.choices("on", Outcome.values());
                    item.refuseOthers();
                    return new After(rule, on.isEmpty() ? After.USUAL : Set.copyOf(on));
                })
                .toList();
    }

    private static @Nullable ReadyWhen readyWhen(Fields fields) {
        var ready = new ReadyWhen(
                fields.requiredText("query", "sailings-loaded"),
                fields.parsed("every", LimitsReader::time).orElse(ReadyWhen.USUAL_ASKING),
                fields.parsed("until", LimitsReader::time).orElse(ReadyWhen.USUAL_UNTIL));
        fields.refuseOthers();
        return ready;
    }

    private static InvalidDefinitionException refused(String message) {
        return new InvalidDefinitionException(List.of(Problem.error(message, "", null)));
    }
}
