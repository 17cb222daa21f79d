package dev.oddsentry.core.schedule;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import net.fortuna.ical4j.model.Recur;
import net.fortuna.ical4j.model.WeekDay;
import net.fortuna.ical4j.transform.recurrence.Frequency;
import org.jspecify.annotations.Nullable;

/**
 * The parts of a recurrence rule of RFC 5545. A set that is empty limits nothing.
 *
 * @param interval at least 1
 * @param count 0 for no limit
 * @param days with their number within the month or the year; 0 for each of them
 * @param hours as written; empty where the start gives the hour
 */
record RecurrenceParts(
        Frequency frequency,
        int interval,
        int count,
        @Nullable Until until,
        DayOfWeek weekStart,
        Set<Integer> months,
        Set<Integer> weeks,
        Set<Integer> yearDays,
        Set<Integer> monthDays,
        Set<Day> days,
        Set<Integer> hours,
        Set<Integer> minutes,
        Set<Integer> seconds,
        List<Integer> positions) {
    private static final DateTimeFormatter DATE = DateTimeFormatter.BASIC_ISO_DATE;
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HHmmss", Locale.ROOT);

    /** {@code 2MO}: the second Monday; {@code -1FR}: the last Friday; number 0: each of them. */
    record Day(DayOfWeek day, int number) {}

    /**
     * The last moment, itself included.
     *
     * @param local where it is given in the zone of the start
     * @param utc where it is given in UTC
     */
    record Until(@Nullable LocalDateTime local, @Nullable ZonedDateTime utc) {
        /** {@code 20261231}, the whole day; {@code 20261231T235959}, local; {@code 20261231T225959Z}. */
        static Until of(String text) {
            String date = text.substring(0, Math.min(8, text.length()));
            var day = LocalDate.parse(date, DATE);
            if (text.length() == 8) return new Until(day.atTime(LocalTime.MAX), null);
            var local = day.atTime(LocalTime.parse(text.substring(9).replace("Z", ""), TIME));
            return text.endsWith("Z") ? new Until(null, local.atZone(ZoneOffset.UTC)) : new Until(local, null);
        }
    }

    /** @throws RuntimeException if it is none */
    static RecurrenceParts of(String rule, Recur<?> read) {
        String until = Stream.of(rule.split(";"))
                .map(part -> part.strip().toUpperCase(Locale.ROOT))
                .filter(part -> part.startsWith("UNTIL="))
                .map(part -> part.substring("UNTIL=".length()).strip())
                .findFirst()
                .orElse(null);
        return new RecurrenceParts(
                read.getFrequency(),
                Math.max(1, read.getInterval()),
                Math.max(0, read.getCount()),
                until == null ? null : Until.of(until),
                read.getWeekStartDay() == null ? DayOfWeek.MONDAY : dayOfWeek(read.getWeekStartDay()),
                read.getMonthList().stream()
                        .map(net.fortuna.ical4j.model.Month::getMonthOfYear)
                        .collect(Collectors.toUnmodifiableSet()),
                Set.copyOf(read.getWeekNoList()),
                Set.copyOf(read.getYearDayList()),
                Set.copyOf(read.getMonthDayList()),
                read.getDayList().stream()
                        .map(day -> new Day(dayOfWeek(day), day.getOffset()))
                        .collect(Collectors.toUnmodifiableSet()),
                Set.copyOf(read.getHourList()),
                Set.copyOf(read.getMinuteList()),
                Set.copyOf(read.getSecondList()),
                read.getSetPosList().stream().distinct().toList());
    }

    private static DayOfWeek dayOfWeek(WeekDay day) {
        return Objects.requireNonNull(WeekDay.getDayOfWeek(day));
    }

    /** What the rule leaves open is that of its start. */
    RecurrenceParts completedFrom(LocalDate start) {
        boolean open = weeks.isEmpty() && yearDays.isEmpty() && monthDays.isEmpty() && days.isEmpty();
        return switch (frequency) {
            case YEARLY -> {
                if (open)
                    yield with(
                            months.isEmpty() ? Set.of(start.getMonthValue()) : months,
                            Set.of(start.getDayOfMonth()),
                            days);
                boolean weeksAlone = !weeks.isEmpty() && days.isEmpty() && monthDays.isEmpty() && yearDays.isEmpty();
                yield weeksAlone ? with(months, monthDays, Set.of(new Day(start.getDayOfWeek(), 0))) : this;
            }
            case MONTHLY -> open ? with(months, Set.of(start.getDayOfMonth()), days) : this;
            case WEEKLY -> open ? with(months, monthDays, Set.of(new Day(start.getDayOfWeek(), 0))) : this;
            case DAILY, HOURLY, MINUTELY, SECONDLY -> this;
        };
    }

    private RecurrenceParts with(Set<Integer> otherMonths, Set<Integer> otherMonthDays, Set<Day> otherDays) {
        return new RecurrenceParts(
                frequency,
                interval,
                count,
                until,
                weekStart,
                otherMonths,
                weeks,
                yearDays,
                otherMonthDays,
                otherDays,
                hours,
                minutes,
                seconds,
                positions);
    }

    boolean isFinerThanADay() {
        return switch (frequency) {
            case HOURLY, MINUTELY, SECONDLY -> true;
            case YEARLY, MONTHLY, WEEKLY, DAILY -> false;
        };
    }

    /** In order; what is not named is that of the start. */
    List<LocalTime> timesOfDay(LocalTime start) {
        var times = new TreeSet<LocalTime>();
        for (int hour : orStart(hours, start.getHour()))
            for (int minute : orStart(minutes, start.getMinute()))
                for (int second : orStart(seconds, start.getSecond())) times.add(LocalTime.of(hour, minute, second));
        return List.copyOf(times);
    }

    private static Set<Integer> orStart(Set<Integer> named, int start) {
        return named.isEmpty() ? Set.of(start) : named;
    }
}
