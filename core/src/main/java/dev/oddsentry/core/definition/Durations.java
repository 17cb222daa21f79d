package dev.oddsentry.core.definition;

import dev.oddsentry.core.document.ScalarType;
import dev.oddsentry.core.document.Shape;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.time.Span;
import java.time.Duration;

/** How documents write how long something lasts. */
final class Durations {
    private static final Shape TIME_SHAPE = Shape.text("time, such as `10 minutes`, `4 hours`, `3 days`");

    /** Checks or a time. */
    static final ScalarType<MinimumDuration> CHECKS_OR_TIME = new ScalarType<>(
            Shape.text("number of checks or a time, such as `3 checks`, `40 minutes`"),
            Durations::checksOrTime,
            MinimumDuration::text);

    /** A time of the clock. */
    static final ScalarType<Duration> TIME = new ScalarType<>(
            TIME_SHAPE, text -> elapsed(text).time().exact(), time -> MinimumDuration.text(Span.between(time)));

    /** A time of which a day is 24 hours. */
    static final ScalarType<Span> SPAN =
            new ScalarType<>(TIME_SHAPE, text -> elapsed(text).time(), MinimumDuration::text);

    /** A time of which a day is one of the calendar. */
    static final ScalarType<Span> CALENDAR_SPAN =
            new ScalarType<>(TIME_SHAPE, text -> elapsed(text).asCalendarDays(), MinimumDuration::text);

    static final ScalarType<Integer> CHECKS = new ScalarType<>(
            Shape.text("number of checks, such as `2 checks`"),
            Durations::checks,
            number -> new MinimumDuration.Checks(number).text());

    private Durations() {}

    private static MinimumDuration checksOrTime(String text) {
        try {
            return MinimumDuration.parse(text);
        } catch (IllegalArgumentException notOne) {
            throw InvalidDefinitionException.of(String.valueOf(notOne.getMessage()));
        }
    }

    private static MinimumDuration.Elapsed elapsed(String text) {
        try {
            if (MinimumDuration.parse(text) instanceof MinimumDuration.Elapsed elapsed) return elapsed;
        } catch (IllegalArgumentException notOne) {
            // The words below say it better for a time alone.
        }
        throw InvalidDefinitionException.of(
                "\"" + text + "\" is not a length of time. Examples: 10 minutes, 4 hours, 3 days");
    }

    private static int checks(String text) {
        if (checksOrTime(text) instanceof MinimumDuration.Checks(int number)) return number;
        throw InvalidDefinitionException.of("\"" + text + "\" is not a number of checks. Example: 2 checks");
    }
}
