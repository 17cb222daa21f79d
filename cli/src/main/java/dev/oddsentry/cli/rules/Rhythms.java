package dev.oddsentry.cli.rules;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/** The usual rhythms of a schedule, as a person types them: {@code weekdays 05:40}, {@code every 15 minutes}. */
final class Rhythms {
    static final String EXAMPLES =
            "weekdays 05:40, daily 18:00, monday thursday 08:00, monthly 1 07:00, every 15 minutes, on demand";

    private static final Pattern AT = Pattern.compile("(.+?) +(\\d{1,2}:\\d{2})");
    private static final Pattern EVERY = Pattern.compile("every (\\d{1,3}) (minute|hour)s?");
    private static final Pattern MONTHLY = Pattern.compile("monthly (-?\\d{1,2})");
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("H:mm");
    private static final Map<String, String> DAYS = days();

    private Rhythms() {}

    private static Map<String, String> days() {
        var days = new LinkedHashMap<String, String>();
        for (String day : List.of("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday"))
            days.put(day, day.substring(0, 2).toUpperCase(Locale.ROOT));
        return days;
    }

    /**
     * The part {@code schedule} of a definition.
     *
     * @param from the day from which it counts
     * @return empty if it cannot be read; an empty part for checks on demand
     */
    static Optional<Map<String, Object>> read(String typed, LocalDate from) {
        String text = typed.strip().toLowerCase(Locale.ROOT);
        if (text.equals("on demand")) return Optional.of(Map.of());
        var every = EVERY.matcher(text);
        if (every.matches())
            return Optional.of(schedule(
                    from,
                    LocalTime.MIDNIGHT,
                    "FREQ=" + (every.group(2).equals("hour") ? "HOURLY" : "MINUTELY") + ";INTERVAL=" + every.group(1)));
        var at = AT.matcher(text);
        if (!at.matches()) return Optional.empty();
        return rule(at.group(1)).flatMap(rule -> time(at.group(2)).map(time -> schedule(from, time, rule)));
    }

    private static Optional<String> rule(String days) {
        if (days.equals("daily")) return Optional.of("FREQ=DAILY");
        if (days.equals("weekdays")) return Optional.of("FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR");
        var monthly = MONTHLY.matcher(days);
        if (monthly.matches()) return Optional.of("FREQ=MONTHLY;BYMONTHDAY=" + monthly.group(1));
        var codes = new ArrayList<String>();
        for (String day : days.split("[ ,]+")) {
            String code = DAYS.get(day);
            if (code == null) return Optional.empty();
            codes.add(code);
        }
        return Optional.of("FREQ=WEEKLY;BYDAY=" + String.join(",", codes));
    }

    private static Optional<LocalTime> time(String text) {
        try {
            return Optional.of(LocalTime.parse(text, CLOCK));
        } catch (DateTimeException none) {
            return Optional.empty();
        }
    }

    private static Map<String, Object> schedule(LocalDate from, LocalTime at, String rule) {
        var schedule = new LinkedHashMap<String, Object>();
        schedule.put("start", from + "T" + at);
        schedule.put("recur", rule);
        return schedule;
    }
}
