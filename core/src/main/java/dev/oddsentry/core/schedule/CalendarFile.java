package dev.oddsentry.core.schedule;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.io.IOException;
import java.io.StringReader;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Pattern;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.data.ParserException;
import net.fortuna.ical4j.model.Component;
import net.fortuna.ical4j.model.Content;

/** Reads the holidays of an iCalendar file (RFC 5545): every whole-day event, recurring ones up to a horizon. */
public final class CalendarFile {
    private static final int MOST_DAYS_OF_ONE_EVENT = 100;

    private static final int MOST_DATES_OF_ONE_EVENT = 500;
    private static final int MOST_HOLIDAYS = 5_000;
    private static final Pattern FINER_THAN_A_DAY = Pattern.compile(
            "FREQ\\s*=\\s*(HOURLY|MINUTELY|SECONDLY)|BY(HOUR|MINUTE|SECOND)\\s*=", Pattern.CASE_INSENSITIVE);

    private CalendarFile() {}

    /**
     * @param until the last date that recurring events are followed to
     * @return dates with the summary of their event
     * @throws InvalidDefinitionException if it is no such file, or has no whole-day event
     */
    public static NavigableMap<LocalDate, String> holidays(String text, LocalDate until) {
        var holidays = new TreeMap<LocalDate, String>();
        try {
            var calendar = new CalendarBuilder().build(new StringReader(text));
            for (Component event : calendar.getComponents(Component.VEVENT)) {
                add(event, until, holidays);
                if (holidays.size() > MOST_HOLIDAYS)
                    throw refused("the file names more than " + MOST_HOLIDAYS + " days");
            }
        } catch (IOException | ParserException | DateTimeException | IllegalArgumentException unreadable) {
            throw refused("this is not a readable iCalendar file: " + unreadable.getMessage());
        }
        if (holidays.isEmpty()) throw refused("the file has no whole-day event, so it names no holiday");
        return holidays;
    }

    private static void add(Component event, LocalDate until, NavigableMap<LocalDate, String> holidays) {
        String start = value(event, "DTSTART").orElse("");
        if (!start.matches("\\d{8}")) return;
        LocalDate first = date(start);
        LocalDate end = value(event, "DTEND")
                .filter(text -> text.matches("\\d{8}"))
                .map(CalendarFile::date)
                .orElse(first.plusDays(1));
        String name = value(event, "SUMMARY").orElse("");
        for (LocalDate from : starts(event, first, until)) {
            for (int day = 0;
                    day < MOST_DAYS_OF_ONE_EVENT && first.plusDays(day).isBefore(end);
                    day++) holidays.put(from.plusDays(day), name);
        }
    }

    private static List<LocalDate> starts(Component event, LocalDate first, LocalDate until) {
        var rule = value(event, "RRULE");
        if (rule.isEmpty()) return List.of(first);
        var dates = new ArrayList<LocalDate>();
        if (FINER_THAN_A_DAY.matcher(rule.get()).find())
            throw refused("a holiday recurs by the day or longer, so FREQ cannot be finer than DAILY: " + rule.get());
        var recurrence = Recurrence.of(rule.get(), first.atStartOfDay(), ZoneOffset.UTC);
        Optional<Instant> next =
                recurrence.nextAfter(first.atStartOfDay().minusSeconds(1).toInstant(ZoneOffset.UTC));
        while (next.isPresent()) {
            LocalDate date = next.get().atZone(ZoneOffset.UTC).toLocalDate();
            if (date.isAfter(until)) break;
            dates.add(date);
            if (dates.size() > MOST_DATES_OF_ONE_EVENT)
                throw refused("an event recurs more than " + MOST_DATES_OF_ONE_EVENT + " times until " + until + ": "
                        + rule.get());
            next = recurrence.nextAfter(next.get());
        }
        return dates;
    }

    private static Optional<String> value(Component event, String name) {
        return event.getProperty(name).map(property -> ((Content) property).getValue());
    }

    private static LocalDate date(String text) {
        return LocalDate.parse(text, DateTimeFormatter.BASIC_ISO_DATE);
    }

    private static InvalidDefinitionException refused(String message) {
        return new InvalidDefinitionException(List.of(Problem.error(message, "", null)));
    }
}
