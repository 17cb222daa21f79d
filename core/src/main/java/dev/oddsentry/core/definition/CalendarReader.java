package dev.oddsentry.core.definition;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.WorkingDays;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/** Reads a calendar's document. */
final class CalendarReader {
    private CalendarReader() {}

    static CalendarDefinition read(Fields top, DocumentText document) {
        var common = CommonFields.read(top);
        var week = top.choices("week", DayOfWeek.values());
        var holidays = new TreeMap<LocalDate, String>();
        var named = top.fields("holidays");
        for (String date : named.freeNames()) {
            document.located("holidays." + date, () -> date(date))
                    .ifPresent(day -> holidays.put(day, named.text(date).orElse("")));
        }
        var worked = new TreeSet<LocalDate>();
        top.checkedTexts("extra_working_days", text -> worked.add(date(text)));
        var periods = new TreeSet<LocalDate>();
        top.checkedTexts("periods", text -> periods.add(date(text)));
        top.refuseOthers();
        Set<DayOfWeek> days = week.isEmpty() ? WorkingDays.MONDAY_TO_FRIDAY.week() : EnumSet.copyOf(week);
        return new CalendarDefinition(
                common.id(), common.name(), common.title(), new WorkingDays(days, holidays, worked, periods));
    }

    static LocalDate date(String text) {
        try {
            return LocalDate.parse(text.strip());
        } catch (DateTimeException notOne) {
            throw new InvalidDefinitionException(
                    List.of(Problem.error("\"" + text + "\" is not a date. Example: 2026-05-17", "", null)));
        }
    }
}
