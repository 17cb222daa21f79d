package dev.oddsentry.core.schedule;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/** What checks look at, held against when they are: time that lies in no check's window is never looked at. */
public final class Coverage {
    private Coverage() {}

    /** Half-open: the instants from the first up to the second. */
    public record Stretch(Instant from, Instant to) {}

    /**
     * The first time that no stretch covers, between those that do.
     *
     * @param stretches what each check looks at, in the order of the checks
     */
    public static Optional<Stretch> firstGap(List<Stretch> stretches) {
        if (stretches.isEmpty()) return Optional.empty();
        Instant reached = stretches.getFirst().to();
        for (var stretch : stretches) {
            if (stretch.from().isAfter(reached)) return Optional.of(new Stretch(reached, stretch.from()));
            if (stretch.to().isAfter(reached)) reached = stretch.to();
        }
        return Optional.empty();
    }
}
