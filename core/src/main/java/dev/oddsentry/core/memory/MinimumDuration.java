package dev.oddsentry.core.memory;

import dev.oddsentry.core.time.Span;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.regex.Pattern;

/** How long something must last before it counts: so many checks in a row, or so long. */
public sealed interface MinimumDuration {
    /** The first check decides. */
    MinimumDuration NONE = new Checks(1);

    /** Minutes. */
    long HOUR = 60;

    /** Minutes. */
    long DAY = 24 * HOUR;

    /** @param number of good scheduled checks, one or more */
    record Checks(int number) implements MinimumDuration {}

    /** @param time of days and clock; a day is 24 hours */
    record Elapsed(Span time) implements MinimumDuration {
        /** The same with whole days as days of the calendar, which keep the local time over a clock change. */
        public Span asCalendarDays() {
            long minutes = time.exact().toMinutes();
            return minutes % DAY == 0 ? Span.of(minutes / DAY, Span.Unit.DAY) : time;
        }
    }

    /**
     * Where something began: nothing is written to count on from there.
     *
     * @param ordinal of the first good scheduled check that counts for it
     * @param slot of the check that saw it first
     */
    record Start(long ordinal, Instant slot) {}

    /**
     * The check that is being calculated.
     *
     * @param before how many good scheduled checks the rule has had
     * @param scheduled whether this is one more; a check on demand never adds to a count
     */
    record Tick(long before, boolean scheduled, Instant slot) {
        public Start start() {
            return new Start(before + 1, slot);
        }

        private long ordinal() {
            return scheduled ? before + 1 : before;
        }

        /** True once so many slots have gone by since what became better at {@code start}; at once where none is wanted. */
        public boolean isConfirmed(Start start, int slots) {
            return slots == 0 || ordinal() - start.ordinal() >= slots;
        }
    }

    /** True once what began at {@code start} has lasted until this check. */
    default boolean isOver(Start start, Tick now) {
        return switch (this) {
            case Checks(int number) -> number <= 1 || now.ordinal() - start.ordinal() + 1 >= number;
            case Elapsed(var time) -> Duration.between(start.slot(), now.slot()).compareTo(time.exact()) >= 0;
        };
    }

    /** How many checks are needed at least before it is over; 1 where time decides. */
    default int checks() {
        return switch (this) {
            case Checks(int number) -> number;
            case Elapsed _ -> 1;
        };
    }

    /** {@code 3 checks}, {@code 40 minutes}; the form that {@link #parse} reads. */
    default String text() {
        return switch (this) {
            case Checks(int number) -> count(number, "check");
            case Elapsed(var time) -> text(time);
        };
    }

    /** {@code 3 days}, {@code 40 minutes}. */
    static String text(Span time) {
        long minutes = time.exact().toMinutes();
        if (minutes % DAY == 0) return count(minutes / DAY, "day");
        return minutes % HOUR == 0 ? count(minutes / HOUR, "hour") : count(minutes, "minute");
    }

    private static String count(long number, String unit) {
        return number + " " + unit + (number == 1 ? "" : "s");
    }

    /** @throws IllegalArgumentException with words */
    static MinimumDuration parse(String text) {
        var match = Pattern.compile("(\\d{1,6})\\s+(check|minute|hour|day)s?")
                .matcher(text.strip().toLowerCase(Locale.ROOT));
        if (!match.matches() || Integer.parseInt(match.group(1)) == 0) {
            throw new IllegalArgumentException(
                    "\"" + text + "\" is not a duration. Examples: 3 checks, 40 minutes, 2 hours, 1 day");
        }
        int amount = Integer.parseInt(match.group(1));
        return switch (match.group(2)) {
            case "check" -> new Checks(amount);
            case "minute" -> new Elapsed(Span.of(amount, Span.Unit.MINUTE));
            case "hour" -> new Elapsed(Span.of(amount, Span.Unit.HOUR));
            default -> new Elapsed(Span.of(amount * 24L, Span.Unit.HOUR));
        };
    }
}
