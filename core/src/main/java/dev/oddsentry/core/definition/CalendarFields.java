package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.FieldType;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import dev.oddsentry.core.document.Shape;
import dev.oddsentry.core.time.WorkingDays;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.Collection;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/** A calendar's document. */
final class CalendarFields {
    static final Part<CalendarDefinition> PART = CommonFields.sharedTable(
            Kind.CALENDAR, "Working days, holidays and accounting periods, for schedules and relative dates.");

    private static final Field<CalendarDefinition, List<DayOfWeek>> WEEK = PART.field(
                    "week",
                    FieldTypes.choice(DayOfWeek.values()).list(),
                    calendar -> calendar.days().week().stream().sorted().toList(),
                    "The working days of a week.")
            .usual(List.copyOf(new TreeSet<>(WorkingDays.MONDAY_TO_FRIDAY.week())))
            .usually("Monday to Friday")
            .alwaysWritten();
    private static final Field<CalendarDefinition, Map<LocalDate, String>> HOLIDAYS = PART.field(
                    "holidays",
                    holidays(),
                    calendar -> calendar.days().holidays(),
                    "Holidays by date, with their names.")
            .usual(Map.of());
    private static final Field<CalendarDefinition, List<LocalDate>> EXTRA_WORKING_DAYS = PART.field(
                    "extra_working_days",
                    ScheduleFields.DATE.list(),
                    calendar -> sorted(calendar.days().worked()),
                    "Working days in spite of week and holidays.")
            .usual(List.of());
    private static final Field<CalendarDefinition, List<LocalDate>> PERIODS = PART.field(
                    "periods",
                    ScheduleFields.DATE.list(),
                    calendar -> sorted(calendar.days().periods()),
                    "The first days of accounting periods.")
            .usual(List.of())
            .usually("months");

    private CalendarFields() {}

    static CalendarDefinition read(Fields top) {
        var common = CommonFields.read(top);
        var week = WEEK.in(top);
        Set<DayOfWeek> days = week.isEmpty() ? WorkingDays.MONDAY_TO_FRIDAY.week() : EnumSet.copyOf(week);
        return new CalendarDefinition(
                common.id(),
                common.name(),
                common.title(),
                CommonFields.owner(top),
                CommonFields.visibleTo(top),
                new WorkingDays(
                        days,
                        new TreeMap<>(HOLIDAYS.in(top)),
                        new TreeSet<>(EXTRA_WORKING_DAYS.in(top)),
                        new TreeSet<>(PERIODS.in(top))));
    }

    private static List<LocalDate> sorted(Collection<LocalDate> dates) {
        return dates.stream().sorted().toList();
    }

    private static FieldType<Map<LocalDate, String>> holidays() {
        return FieldType.of(
                new Shape(
                        "by date such as `2026-12-25`: name",
                        Map.of(
                                "type",
                                "object",
                                "additionalProperties",
                                Shape.scalar("").schema())),
                (fields, name) -> Optional.of(namedDays(fields.fields(name))),
                days -> {
                    var printed = new LinkedHashMap<String, Object>();
                    days.forEach((date, called) -> printed.put(date.toString(), called));
                    return printed;
                });
    }

    private static Map<LocalDate, String> namedDays(Fields named) {
        var days = new TreeMap<LocalDate, String>();
        for (String date : named.freeNames())
            named.located(date, () -> ScheduleFields.date(date))
                    .ifPresent(day -> days.put(day, named.text(date).orElse("")));
        return days;
    }
}
