package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.TriggersDefinition.After;
import dev.oddsentry.core.definition.TriggersDefinition.Outcome;
import dev.oddsentry.core.definition.TriggersDefinition.ReadyWhen;
import dev.oddsentry.core.definition.TriggersDefinition.WhenEmpty;
import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import dev.oddsentry.core.document.ScalarType;
import dev.oddsentry.core.document.Shape;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.schedule.Missed;
import dev.oddsentry.core.schedule.OnHoliday;
import dev.oddsentry.core.schedule.Recurrence;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** When a rule's checks run: at which times, on which occasions, and what they wait for. */
final class ScheduleFields {
    static final ScalarType<LocalDate> DATE =
            new ScalarType<>(Shape.text("date, such as `2026-12-24`"), ScheduleFields::date, LocalDate::toString);
    private static final ScalarType<LocalDateTime> LOCAL_TIME = new ScalarType<>(
            Shape.text("local date and time, such as `2026-01-05T05:40`"),
            ScheduleFields::localTime,
            LocalDateTime::toString);
    private static final LocalDateTime ANY_START = LocalDateTime.of(2026, 1, 1, 0, 0);
    private static final String EXAMPLE_START = "2026-01-01T05:40";

    /** A rule's schedule: its times, and what else starts its checks. */
    record Schedule(ScheduleDefinition times, TriggersDefinition occasions) {}

    /** Times alone. */
    static final Part<ScheduleDefinition> TIMES = new Part<>("times", "Times at which something happens.");

    private static final Field<ScheduleDefinition, LocalDateTime> START = TIMES.field(
            "start",
            LOCAL_TIME,
            ScheduleDefinition::start,
            "The first time, local in the zone. `recur` and `working_days` need it.");
    private static final Field<ScheduleDefinition, List<String>> RECUR = TIMES.field(
                    "recur",
                    FieldTypes.text("RFC 5545 recurrence, such as `FREQ=WEEKLY;BYDAY=MO`")
                            .list(),
                    ScheduleDefinition::recur,
                    "How the start recurs.")
            .usual(List.of());
    private static final Field<ScheduleDefinition, List<Integer>> WORKING_DAYS = TIMES.field(
                    "working_days",
                    new ScalarType<>(
                                    new Shape(
                                            "working day of the month: `3` third, `-1` last",
                                            Map.of("type", List.of("integer", "string"))),
                                    ScheduleFields::workingDay,
                                    day -> day)
                            .list(),
                    ScheduleDefinition::workingDays,
                    "Once a month for each, at the start's time.")
            .usual(List.of());
    private static final Field<ScheduleDefinition, List<LocalDateTime>> ALSO = TIMES.field(
                    "also", LOCAL_TIME.list(), ScheduleDefinition::also, "Single times.")
            .usual(List.of());
    private static final Field<ScheduleDefinition, List<String>> EXCEPT = TIMES.field(
                    "except",
                    FieldTypes.text("date, or local date and time", ScheduleFields::dateOrTime)
                            .list(),
                    ScheduleFields::except,
                    "Dates or times that are left out.")
            .usual(List.of());
    private static final Field<ScheduleDefinition, LocalDateTime> UNTIL = TIMES.field(
                    "until", LOCAL_TIME, ScheduleDefinition::until, "The last time.")
            .usually("no end");
    private static final Field<ScheduleDefinition, String> CALENDAR = TIMES.field(
                    "calendar",
                    FieldTypes.nameOf("calendar"),
                    ScheduleDefinition::calendar,
                    "Which days are working days.")
            .usually("Monday to Friday");
    private static final Field<ScheduleDefinition, OnHoliday> ON_HOLIDAYS = TIMES.field(
                    "on_holidays",
                    FieldTypes.choice(OnHoliday.values()),
                    ScheduleDefinition::onHoliday,
                    "What happens to a time on a day that is not a working day.")
            .usually("it stays");

    private static final Part<After> AFTER = new Part<>("after", "A rule whose checks start one of this rule.");
    private static final Field<After, String> AFTER_RULE = AFTER.field(
                    "rule", FieldTypes.nameOf("rule"), After::rule, "The rule.")
            .required("late-sailings");
    private static final Field<After, List<Outcome>> AFTER_ON = AFTER.field(
                    "on",
                    FieldTypes.choice(Outcome.values()).list(),
                    after -> after.on().stream().sorted().toList(),
                    "After which outcomes of its checks.")
            .usual(After.USUAL.stream().sorted().toList())
            .usually("`fired` and `quiet`");

    private static final Part<ReadyWhen> READY_WHEN =
            new Part<>("ready_when", "A query that says whether the data of a check is complete.");
    private static final Field<ReadyWhen, String> READY_QUERY = READY_WHEN
            .field("query", FieldTypes.nameOf("query"), ReadyWhen::query, "A check waits until it returns a row.")
            .required("sailings-loaded");
    private static final Field<ReadyWhen, Duration> READY_EVERY = READY_WHEN
            .field("every", Durations.TIME, ReadyWhen::every, "How often it is run.")
            .usual(ReadyWhen.USUAL_EVERY)
            .alwaysWritten();
    private static final Field<ReadyWhen, Duration> READY_UNTIL = READY_WHEN
            .field(
                    "until",
                    Durations.TIME,
                    ReadyWhen::until,
                    "A check that is not ready this long after its slot fails.")
            .usual(ReadyWhen.USUAL_UNTIL)
            .alwaysWritten();

    /** All of a rule's schedule. */
    static final Part<Schedule> PART =
            new Part<Schedule>("schedule", "When the rule is checked.").include(TIMES, Schedule::times);

    private static final Field<Schedule, Missed> MISSED = PART.field(
                    "missed",
                    FieldTypes.choice(Missed.values()),
                    schedule -> schedule.times().missed(),
                    "What happens to slots while the service was down: only the latest is checked, each (oldest first, max 50), or none.")
            .usually("`each` if the parameters cover at most the gap between slots, else `latest`");
    private static final Field<Schedule, List<String>> EVENTS = PART.field(
                    "events",
                    FieldTypes.name("name of an external event").list(),
                    schedule -> schedule.occasions().events(),
                    "External events that start a check.")
            .usual(List.of());
    private static final Field<Schedule, List<After>> AFTER_RULES = PART.field(
                    "after",
                    FieldTypes.parts(AFTER, "rule", ScheduleFields::after),
                    schedule -> schedule.occasions().after(),
                    "Rules whose checks start one of this rule, for the same slot.")
            .usual(List.of());
    private static final Field<Schedule, ReadyWhen> READY = PART.field(
                    "ready_when",
                    FieldTypes.optionalPart(READY_WHEN, ScheduleFields::readyWhen),
                    schedule -> schedule.occasions().ready(),
                    "What a check waits for.")
            .usually("nothing");
    private static final Field<Schedule, WhenEmpty> WHEN_EMPTY = PART.field(
                    "when_empty",
                    FieldTypes.choice(WhenEmpty.values()),
                    schedule -> schedule.occasions().whenEmpty(),
                    "What a result without rows means: an outcome like any other, a notice to the owning team, or a failure.")
            .usual(WhenEmpty.QUIET);

    private ScheduleFields() {}

    static Schedule read(Fields fields) {
        return new Schedule(
                times(fields, MISSED.orNull(fields)),
                new TriggersDefinition(
                        EVENTS.in(fields), AFTER_RULES.in(fields), READY.orNull(fields), WHEN_EMPTY.in(fields)));
    }

    /** Times alone, of which only the latest that was missed is made up for. */
    static ScheduleDefinition times(Fields fields) {
        return times(fields, null);
    }

    private static ScheduleDefinition times(Fields fields, @Nullable Missed missed) {
        var start = START.read(fields);
        var recur = fields.parsedItems(RECUR.name(), text -> {
            Recurrence.of(text, start.orElse(ANY_START), ZoneOffset.UTC);
            return text;
        });
        var workingDays = WORKING_DAYS.in(fields);
        if (!recur.isEmpty() || !workingDays.isEmpty())
            fields.requireValue(START.name(), EXAMPLE_START, start.isPresent());
        var except = EXCEPT.in(fields);
        return new ScheduleDefinition(
                start.orElse(null),
                recur,
                workingDays,
                ALSO.in(fields),
                except.stream()
                        .filter(text -> !isDate(text))
                        .map(ScheduleFields::localTime)
                        .toList(),
                except.stream()
                        .filter(ScheduleFields::isDate)
                        .map(ScheduleFields::date)
                        .toList(),
                UNTIL.orNull(fields),
                CALENDAR.orNull(fields),
                ON_HOLIDAYS.orNull(fields),
                missed);
    }

    private static boolean isDate(String text) {
        return text.strip().length() == "2026-12-24".length();
    }

    private static String dateOrTime(String text) {
        return isDate(text) ? date(text).toString() : localTime(text).toString();
    }

    private static List<String> except(ScheduleDefinition schedule) {
        return Stream.concat(
                        schedule.exceptDates().stream().map(LocalDate::toString),
                        schedule.except().stream().map(LocalDateTime::toString))
                .toList();
    }

    private static int workingDay(String text) {
        if (text.strip().matches("-?([1-9]|1[0-9]|2[0-3])")) return Integer.parseInt(text.strip());
        throw InvalidDefinitionException.of(
                "\"" + text + "\" is not a working day of a month. Examples: 3 (third), -1 (last)");
    }

    static LocalDate date(String text) {
        try {
            return LocalDate.parse(text.strip());
        } catch (DateTimeException notOne) {
            throw InvalidDefinitionException.of("\"" + text + "\" is not a date. Example: 2026-12-24");
        }
    }

    private static LocalDateTime localTime(String text) {
        try {
            return LocalDateTime.parse(text.strip().replace(' ', 'T'));
        } catch (DateTimeException notOne) {
            throw InvalidDefinitionException.of(
                    "\"" + text + "\" is not a local date and time. Example: 2026-01-01T05:40");
        }
    }

    private static After after(Fields item) {
        var rule = AFTER_RULE.read(item).orElse("");
        var on = AFTER_ON.in(item);
        return new After(rule, on.isEmpty() ? After.USUAL : Set.copyOf(on));
    }

    private static ReadyWhen readyWhen(Fields fields) {
        return new ReadyWhen(READY_QUERY.read(fields).orElse(""), READY_EVERY.in(fields), READY_UNTIL.in(fields));
    }
}
