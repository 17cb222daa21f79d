package dev.oddsentry.core.schedule;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import net.fortuna.ical4j.model.Recur;

/**
 * One RFC 5545 recurrence rule from a local start in a time zone. Dates of a day and longer are made in local time and then placed in the zone: one that a
 * clock change skips moves forward by the gap, for that date alone; one that occurs twice happens once, at the first. A rule finer than a day walks in instants,
 * and neither skips nor repeats any.
 */
public final class Recurrence implements Slots {
    private static final Set<String> RULE_PARTS = Set.of(
            "FREQ",
            "UNTIL",
            "COUNT",
            "INTERVAL",
            "BYSECOND",
            "BYMINUTE",
            "BYHOUR",
            "BYDAY",
            "BYMONTHDAY",
            "BYYEARDAY",
            "BYWEEKNO",
            "BYMONTH",
            "BYSETPOS",
            "WKST");
    /** The calendar repeats itself after so many years: a rule that has given no date never will (30 February). */
    private static final int YEARS_WITHOUT_A_DATE = 400;
    /** Where the date line moved, a whole day was left out. */
    private static final int WIDEST_GAP_DAYS = 2;

    private static final int MOST_TIMES_A_DAY = 1_440;
    private static final int MOST_DATES_OF_A_STEP = 60_000;

    private final RecurrenceParts parts;
    private final LocalDateTime start;
    private final ZoneId zone;
    private final RecurrenceDays days;
    private final List<LocalTime> times;

    private Recurrence(RecurrenceParts parts, LocalDateTime start, ZoneId zone) {
        this.parts = parts;
        this.start = start;
        this.zone = zone;
        this.days = new RecurrenceDays(parts, start.toLocalDate());
        this.times = parts.isFinerThanADay() ? List.of() : parts.timesOfDay(start.toLocalTime());
    }

    /** @throws InvalidDefinitionException if the rule is not one of RFC 5545 */
    public static Recurrence of(String rule, LocalDateTime start, ZoneId zone) {
        checkParts(rule);
        try {
            var read = new Recur<ZonedDateTime>(rule);
            checkExpansion(rule, read);
            return new Recurrence(RecurrenceParts.of(rule, read), start.truncatedTo(ChronoUnit.SECONDS), zone);
        } catch (InvalidDefinitionException refused) {
            throw refused;
        } catch (RuntimeException notOne) {
            throw refused("\"" + rule + "\" is not a recurrence of RFC 5545: " + notOne.getMessage());
        }
    }

    /**
     * An earlier start that gives the same dates from {@code start} on.
     *
     * @return the latest such start that is not after {@code by}, or somewhat earlier
     */
    public static LocalDateTime sameRhythmBy(String rule, LocalDateTime start, LocalDateTime by, ZoneId zone) {
        var read = new Recur<ZonedDateTime>(rule);
        int interval = Math.max(1, read.getInterval());
        // Of months whole years, so that the day of the start is there.
        var unit = switch (read.getFrequency()) {
            case YEARLY, MONTHLY -> ChronoUnit.YEARS;
            case WEEKLY -> ChronoUnit.WEEKS;
            case DAILY -> ChronoUnit.DAYS;
            case HOURLY -> ChronoUnit.HOURS;
            case MINUTELY -> ChronoUnit.MINUTES;
            case SECONDLY -> ChronoUnit.SECONDS;
        };
        long steps = (unit.between(by, start) + interval) / interval;
        // What is finer than a day walks in instants.
        return unit.isTimeBased()
                ? start.atZone(zone).minus(steps * interval, unit).toLocalDateTime()
                : start.minus(steps * interval, unit);
    }

    private static void checkParts(String rule) {
        var names = Stream.of(rule.split(";", -1))
                .map(part -> part.split("=", 2)[0].strip().toUpperCase(Locale.ROOT))
                .toList();
        var unknown = names.stream().filter(name -> !RULE_PARTS.contains(name)).collect(Collectors.toSet());
        if (!unknown.isEmpty())
            throw refused("unknown rule part " + String.join(", ", unknown) + " in \"" + rule + "\"");
        if (!names.contains("FREQ")) throw refused("\"" + rule + "\" lacks FREQ, such as FREQ=DAILY");
        if (names.stream().distinct().count() < names.size())
            throw refused("a rule part is given twice in \"" + rule + "\"");
        Stream.of(rule.split(";", -1)).forEach(Recurrence::checkNumber);
        Stream.of(rule.split(";", -1)).forEach(Recurrence::checkNumbers);
        if (names.contains("COUNT") && names.contains("UNTIL")) throw refused("COUNT and UNTIL exclude each other");
    }

    /** One step of the recurrence makes all its dates at once: a year of all hours, minutes and seconds is thirty million. */
    private static void checkExpansion(String rule, Recur<ZonedDateTime> recur) {
        long days = switch (recur.getFrequency()) {
            case YEARLY -> 366;
            case MONTHLY -> 31;
            case WEEKLY -> 7;
            case DAILY, HOURLY, MINUTELY, SECONDLY -> 1;
        };
        long times = Math.max(1L, recur.getHourList().size())
                * Math.max(1, recur.getMinuteList().size())
                * Math.max(1, recur.getSecondList().size());
        if (times > MOST_TIMES_A_DAY)
            throw refused("\"" + rule + "\" names " + times + " times of a day; at most " + MOST_TIMES_A_DAY
                    + " are allowed");
        if (days * times > MOST_DATES_OF_A_STEP)
            throw refused("\"" + rule + "\" names " + days * times + " dates for one step of its frequency; at most "
                    + MOST_DATES_OF_A_STEP + " are allowed; choose a finer FREQ");
    }

    private static void checkNumber(String part) {
        boolean counts = part.toUpperCase(Locale.ROOT).matches("\\s*(INTERVAL|COUNT)\\s*=.*");
        if (counts && !part.matches("[^=]*=\\s*[1-9][0-9]{0,5}\\s*")) {
            throw refused("\"" + part.strip() + "\" must be a whole number from 1 on");
        }
    }

    private static InvalidDefinitionException refused(String message) {
        return new InvalidDefinitionException(List.of(Problem.error(message, "", null)));
    }

    /** @param fromEnd whether numbers may count from the end, as -1 does; none is 0 then */
    private record Numbers(int least, int most, boolean fromEnd) {
        boolean has(int number) {
            return fromEnd ? number != 0 && Math.abs(number) <= most : number >= least && number <= most;
        }

        String words() {
            String range = "from " + least + " to " + most;
            return fromEnd ? range + ", or from -1 to -" + most + " counted from the end" : range;
        }
    }

    private static final Map<String, Numbers> NUMBERS = Map.of(
            "BYSECOND", new Numbers(0, 59, false),
            "BYMINUTE", new Numbers(0, 59, false),
            "BYHOUR", new Numbers(0, 23, false),
            "BYMONTH", new Numbers(1, 12, false),
            "BYMONTHDAY", new Numbers(1, 31, true),
            "BYYEARDAY", new Numbers(1, 366, true),
            "BYWEEKNO", new Numbers(1, 53, true),
            "BYSETPOS", new Numbers(1, 366, true));

    /** The library refuses them too, in words of its own. */
    private static void checkNumbers(String part) {
        var named = part.split("=", 2);
        var numbers = NUMBERS.get(named[0].strip().toUpperCase(Locale.ROOT));
        if (numbers == null || named.length < 2) return;
        for (String text : named[1].split(",", -1)) {
            String number = text.strip();
            if (number.matches("[+-]?\\d{1,9}") && !numbers.has(Integer.parseInt(number)))
                throw refused(named[0].strip() + " takes numbers " + numbers.words() + "; saw " + number);
        }
    }

    /** The first instant strictly after {@code after}; empty once the recurrence has ended. */
    @Override
    public Optional<Instant> nextAfter(Instant after) {
        return parts.isFinerThanADay()
                ? new RecurrenceInstants(parts, start, zone, days).nextAfter(after)
                : nextOfDays(after);
    }

    /**
     * Dates are made in local time and then placed, each by itself: one in a gap moves forward by the gap, so that it may meet or pass others; so all of the
     * days near it are looked at.
     */
    private Optional<Instant> nextOfDays(Instant after) {
        LocalDate asked = after.atZone(zone).toLocalDate();
        LocalDate near = asked.minusDays(WIDEST_GAP_DAYS);
        LocalDate horizon = later(asked, start.toLocalDate()).plusYears(YEARS_WITHOUT_A_DATE);
        long step = parts.count() > 0 ? 0 : days.stepOf(near);
        int counted = 0;
        Instant best = null;
        for (; ; step++) {
            LocalDate first = days.firstDayOf(step);
            boolean passed = best != null
                    && first.isAfter(best.atZone(zone).toLocalDate().plusDays(WIDEST_GAP_DAYS));
            if (passed || first.isAfter(horizon)) return Optional.ofNullable(best);
            for (LocalDateTime date : datesOf(step)) {
                if (date.isBefore(start)) continue;
                if (parts.count() > 0 && ++counted > parts.count()) return Optional.ofNullable(best);
                Instant placed = date.atZone(zone).toInstant();
                if (isAfterEnd(date, placed)) {
                    if (best != null || date.isAfter(endLocal())) return Optional.ofNullable(best);
                    continue;
                }
                if (placed.isAfter(after) && (best == null || placed.isBefore(best))) best = placed;
            }
        }
    }

    private static LocalDate later(LocalDate one, LocalDate other) {
        return one.isAfter(other) ? one : other;
    }

    private boolean isAfterEnd(LocalDateTime date, Instant placed) {
        var until = parts.until();
        if (until == null) return false;
        return until.local() != null
                ? date.isAfter(until.local())
                : until.utc() != null && placed.isAfter(until.utc().toInstant());
    }

    /** A local time that is certainly after the end, whatever the zone does. */
    private LocalDateTime endLocal() {
        var until = Objects.requireNonNull(parts.until());
        var local = until.local() != null
                ? until.local()
                : Objects.requireNonNull(until.utc()).withZoneSameInstant(zone).toLocalDateTime();
        return local.plusDays(WIDEST_GAP_DAYS);
    }

    private List<LocalDateTime> datesOf(long step) {
        var dates = days.of(step);
        if (parts.positions().isEmpty())
            return dates.stream()
                    .flatMap(date -> times.stream().map(date::atTime))
                    .toList();
        return positions(parts.positions(), dates.size() * times.size())
                .mapToObj(place -> dates.get(place / times.size()).atTime(times.get(place % times.size())))
                .toList();
    }

    /** Places, from 0 and in order, of those of so many that are named. */
    static IntStream positions(List<Integer> named, int size) {
        return named.stream()
                .mapToInt(position -> position > 0 ? position - 1 : size + position)
                .filter(place -> place >= 0 && place < size)
                .distinct()
                .sorted();
    }
}
