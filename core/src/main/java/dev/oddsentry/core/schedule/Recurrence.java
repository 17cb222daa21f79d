package dev.oddsentry.core.schedule;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.Month;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import net.fortuna.ical4j.model.Recur;
import net.fortuna.ical4j.transform.recurrence.Frequency;

/**
 * One RFC 5545 recurrence rule from a local start in a time zone. A local time that a clock change skips is read with the offset
 * before the gap; one that occurs twice happens once, at the first; a rule finer than a day neither skips nor repeats an instant.
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
    /** A rule that has given no date in so many years never will (30 February). */
    private static final int YEARS_WITHOUT_A_DATE = 40;

    private static final int MOST_TIMES_A_DAY = 1_440;
    private static final int MOST_DATES_OF_A_STEP = 60_000;

    private final Recur<ZonedDateTime> recur;
    private final ZonedDateTime start;

    private Recurrence(Recur<ZonedDateTime> recur, ZonedDateTime start) {
        this.recur = recur;
        this.start = start;
    }

    /** @throws InvalidDefinitionException if the rule is not one of RFC 5545 */
    public static Recurrence of(String rule, LocalDateTime start, ZoneId zone) {
        checkParts(rule);
        try {
            var recur = new Recur<ZonedDateTime>(rule);
            checkExpansion(rule, recur);
            return new Recurrence(recur, start.atZone(zone));
        } catch (InvalidDefinitionException refused) {
            throw refused;
        } catch (RuntimeException notOne) {
            throw refused("\"" + rule + "\" is no recurrence of RFC 5545: " + notOne.getMessage());
        }
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
            throw refused("a rule part stands twice in \"" + rule + "\"");
        Stream.of(rule.split(";", -1)).forEach(Recurrence::checkNumber);
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

    /** The first instant strictly after {@code after}; empty once the recurrence has ended. */
    @Override
    public Optional<Instant> nextAfter(Instant after) {
        if (after.isBefore(start.toInstant()) && fallsOnStart()) return Optional.of(start.toInstant());
        ZonedDateTime seed = seedFor(after);
        ZonedDateTime from = after.atZone(start.getZone());
        ZonedDateTime horizon = (from.isAfter(start) ? from : start).plusYears(YEARS_WITHOUT_A_DATE);
        if (isNeverADate()) return Optional.empty();
        var next = recur.getNextDate(seed, from);
        while (next != null && !next.toInstant().isAfter(after)) next = recur.getNextDate(seed, next);
        return Optional.ofNullable(next).filter(date -> date.isBefore(horizon)).map(ZonedDateTime::toInstant);
    }

    private boolean fallsOnStart() {
        return start.equals(recur.getNextDate(start, start.minusNanos(1)));
    }

    /** Days that no month named has, such as 30 February, on which the library would search without end. */
    private boolean isNeverADate() {
        var months = recur.getMonthList();
        var days = recur.getMonthDayList();
        if (months.isEmpty() || days.isEmpty()) return false;
        int longest = months.stream()
                .mapToInt(month -> Month.of(month.getMonthOfYear()).maxLength())
                .max()
                .orElseThrow();
        return days.stream().allMatch(day -> Math.abs(day) > longest);
    }

    /**
     * A start nearer to {@code after} that gives the same dates, since the library walks from its start and a rule of some years
     * and five minutes takes seconds. Not where dates are counted, nor for months and years, whose walk is short.
     */
    private ZonedDateTime seedFor(Instant after) {
        if (recur.getCount() > 0 || !after.isAfter(start.toInstant())) return start;
        int interval = Math.max(1, recur.getInterval());
        Duration gone = Duration.between(start.toInstant(), after);
        Frequency frequency = recur.getFrequency();
        return switch (frequency) {
            case SECONDLY -> forward(gone, Duration.ofSeconds(interval));
            case MINUTELY -> forward(gone, Duration.ofMinutes(interval));
            case HOURLY -> forward(gone, Duration.ofHours(interval));
            case DAILY -> start.plusDays(wholeUnits(gone.toDays(), interval));
            case WEEKLY -> start.plusWeeks(wholeUnits(gone.toDays() / 7, interval));
            case MONTHLY, YEARLY -> start;
        };
    }

    private ZonedDateTime forward(Duration gone, Duration step) {
        return start.plus(step.multipliedBy(Math.max(0, gone.dividedBy(step) - 1)));
    }

    /** Leaves one interval of room, since days are not all 24 hours long. */
    private static long wholeUnits(long gone, int interval) {
        return Math.max(0, gone / interval - 1) * interval;
    }
}
