package dev.oddsentry.core.schedule;

import java.time.Duration;
import java.util.Collections;
import java.util.List;

/** How long a check may take, learned from those before it. */
public final class TimeLimit {
    /** Of fewer good checks nothing is learned. */
    private static final int LEAST_GOOD = 5;

    /** Good checks that are looked at. */
    public static final int LOOKED_AT = 20;

    private static final int TIMES_THE_USUAL = 5;
    private static final double PERCENTILE = 0.95;
    private static final int MOST_DOUBLINGS = 16;

    private TimeLimit() {}

    /**
     * Five times the 95th percentile of the last twenty good checks, never under the longest of them or a minute, doubled for each
     * time-out since.
     *
     * @param good how long the last good checks took, at most {@link #LOOKED_AT}
     * @param timeOuts in a row since the last good one
     * @param ceiling the operator's, which also stands while nothing was learned
     */
    public static Duration learned(List<Duration> good, int timeOuts, Duration ceiling) {
        if (good.size() < LEAST_GOOD) return ceiling;
        var sorted = good.stream().sorted().toList();
        Duration usual =
                sorted.get((int) Math.ceil(PERCENTILE * sorted.size()) - 1).multipliedBy(TIMES_THE_USUAL);
        Duration least = Collections.max(List.of(usual, sorted.getLast(), Duration.ofMinutes(1)));
        Duration doubled = least.multipliedBy(1L << Math.min(timeOuts, MOST_DOUBLINGS));
        return doubled.compareTo(ceiling) > 0 ? ceiling : doubled;
    }
}
