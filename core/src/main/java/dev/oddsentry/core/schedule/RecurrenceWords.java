package dev.oddsentry.core.schedule;

import java.time.LocalDateTime;
import java.time.Month;
import java.time.format.DateTimeFormatter;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** A recurrence in plain English: {@code every 2 weeks on Monday and Thursday at 05:40}. */
public final class RecurrenceWords {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm");
    private static final Map<String, String> DAYS = Map.of(
            "MO",
            "Monday",
            "TU",
            "Tuesday",
            "WE",
            "Wednesday",
            "TH",
            "Thursday",
            "FR",
            "Friday",
            "SA",
            "Saturday",
            "SU",
            "Sunday");
    private static final Map<String, String> UNITS = Map.of(
            "SECONDLY", "second",
            "MINUTELY", "minute",
            "HOURLY", "hour",
            "DAILY", "day",
            "WEEKLY", "week",
            "MONTHLY", "month",
            "YEARLY", "year");

    private final Map<String, String> parts = new TreeMap<>();
    private final LocalDateTime start;

    private RecurrenceWords(String rule, LocalDateTime start) {
        for (String part : rule.toUpperCase(Locale.ROOT).split(";", -1)) {
            String[] halves = part.split("=", 2);
            parts.put(halves[0].strip(), halves.length == 2 ? halves[1].strip() : "");
        }
        this.start = start;
    }

    /** @param rule one that {@link Recurrence#of} reads */
    public static String of(String rule, LocalDateTime start) {
        return new RecurrenceWords(rule, start).words();
    }

    private String words() {
        String frequency = parts.getOrDefault("FREQ", "");
        int interval = Integer.parseInt(parts.getOrDefault("INTERVAL", "1"));
        String unit = UNITS.getOrDefault(frequency, frequency.toLowerCase(Locale.ROOT));
        var words = new StringBuilder(interval == 1 ? "every " + unit : "every " + interval + " " + unit + "s");
        if (isMondayToFriday() && frequency.equals("WEEKLY") && interval == 1)
            words.replace(0, words.length(), "Monday to Friday");
        else days(frequency).ifPresent(days -> words.append(" on ").append(days));
        if (parts.containsKey("BYMONTHDAY"))
            words.append(" on ").append(list("BYMONTHDAY", RecurrenceWords::dayOfMonth));
        else if (frequency.equals("MONTHLY") && !parts.containsKey("BYDAY"))
            words.append(" on ").append(dayOfMonth(String.valueOf(start.getDayOfMonth())));
        if (parts.containsKey("BYYEARDAY")) words.append(" on day ").append(list("BYYEARDAY", each -> each));
        if (parts.containsKey("BYWEEKNO")) words.append(" in week ").append(list("BYWEEKNO", each -> each));
        if (parts.containsKey("BYMONTH")) words.append(" in ").append(list("BYMONTH", RecurrenceWords::month));
        else if (frequency.equals("YEARLY")
                && Stream.of("BYDAY", "BYWEEKNO", "BYYEARDAY", "BYMONTHDAY").noneMatch(parts::containsKey))
            words.append(" on ")
                    .append(start.getDayOfMonth())
                    .append(" ")
                    .append(month(String.valueOf(start.getMonthValue())));
        if (parts.containsKey("BYSETPOS"))
            words.append(", of these the ").append(list("BYSETPOS", RecurrenceWords::ordinal));
        words.append(times(frequency));
        if (parts.containsKey("COUNT"))
            words.append(", ").append(parts.get("COUNT")).append(" times");
        if (parts.containsKey("UNTIL")) words.append(", until ").append(until(parts.get("UNTIL")));
        return words.toString();
    }

    private boolean isMondayToFriday() {
        return List.of(parts.getOrDefault("BYDAY", "").split(",")).size() == 5
                && Stream.of("MO", "TU", "WE", "TH", "FR")
                        .allMatch(day -> parts.getOrDefault("BYDAY", "").contains(day));
    }

    private Optional<String> days(String frequency) {
        if (parts.containsKey("BYDAY")) return Optional.of(list("BYDAY", RecurrenceWords::day));
        return frequency.equals("WEEKLY")
                ? Optional.of(start.getDayOfWeek().getDisplayName(TextStyle.FULL, Locale.ENGLISH))
                : Optional.empty();
    }

    private static String day(String written) {
        String code = written.substring(written.length() - 2);
        String number = written.substring(0, written.length() - 2);
        String day = DAYS.getOrDefault(code, code);
        return number.isEmpty() ? day : "the " + ordinal(number) + " " + day;
    }

    private static String dayOfMonth(String number) {
        return number.equals("-1") ? "the last day" : "the " + ordinal(number);
    }

    private static String month(String number) {
        return Month.of(Integer.parseInt(number)).getDisplayName(TextStyle.FULL, Locale.ENGLISH);
    }

    private static String ordinal(String written) {
        int number = Integer.parseInt(written);
        if (number == -1) return "last";
        if (number < 0) return ordinal(String.valueOf(-number)) + " last";
        String ending = number % 100 / 10 == 1
                ? "th"
                : switch (number % 10) {
                    case 1 -> "st";
                    case 2 -> "nd";
                    case 3 -> "rd";
                    default -> "th";
                };
        return number + ending;
    }

    private String times(String frequency) {
        boolean clock = List.of("SECONDLY", "MINUTELY").contains(frequency);
        if (frequency.equals("HOURLY") && !parts.containsKey("BYMINUTE")) return " at minute " + start.getMinute();
        if (clock || frequency.equals("HOURLY"))
            return (parts.containsKey("BYHOUR") ? " from " + list("BYHOUR", hour -> hour + ":00") : "")
                    + (parts.containsKey("BYMINUTE") ? " at minute " + list("BYMINUTE", each -> each) : "");
        if (!parts.containsKey("BYHOUR") && !parts.containsKey("BYMINUTE")) return " at " + TIME.format(start);
        var times = new ArrayList<String>();
        for (String hour :
                parts.getOrDefault("BYHOUR", String.valueOf(start.getHour())).split(","))
            for (String minute : parts.getOrDefault("BYMINUTE", String.valueOf(start.getMinute()))
                    .split(",")) times.add("%02d:%02d".formatted(Integer.parseInt(hour), Integer.parseInt(minute)));
        return " at " + joined(times);
    }

    private static String until(String written) {
        return written.length() >= 8
                ? written.substring(0, 4) + "-" + written.substring(4, 6) + "-" + written.substring(6, 8)
                : written;
    }

    private String list(String part, Function<String, String> word) {
        return joined(Stream.of(parts.getOrDefault(part, "").split(","))
                .map(String::strip)
                .map(word)
                .collect(Collectors.toList()));
    }

    private static String joined(List<String> words) {
        if (words.size() == 1) return words.getFirst();
        return String.join(", ", words.subList(0, words.size() - 1)) + " and " + words.getLast();
    }
}
