package dev.oddsentry.core.schedule;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * When a rule is due: the union of its recurrences, up to an end.
 *
 * @param until the last instant at which it may be due; null for no end
 */
public record Schedule(
        List<Recurrence> recurrences, @Nullable Instant until) {

    public static final Schedule ON_DEMAND_ONLY = new Schedule(List.of(), null);

    /** The first slot strictly after {@code after}; empty once the schedule has ended. */
    public Optional<Instant> nextAfter(Instant after) {
        return recurrences.stream()
                .flatMap(recurrence -> recurrence.nextAfter(after).stream())
                .min(Instant::compareTo)
                .filter(next -> until == null || !next.isAfter(until));
    }

    public List<Instant> next(int count, Instant after) {
        var slots = new ArrayList<Instant>();
        Optional<Instant> next = nextAfter(after);
        while (next.isPresent() && slots.size() < count) {
            slots.add(next.get());
            next = nextAfter(next.get());
        }
        return List.copyOf(slots);
    }

    /** The slots of {@code from} on that are due by {@code now}, where {@code from} is due already. */
    public Due due(Instant from, Instant now) {
        Instant latest = from;
        int slots = 1;
        var next = nextAfter(from);
        while (next.isPresent() && !next.get().isAfter(now)) {
            latest = next.get();
            slots++;
            next = nextAfter(latest);
        }
        return new Due(latest, slots, next);
    }

    /**
     * @param latest the slot to run: the latest one due
     * @param slots how many slots it stands for; more than one after the service was down
     * @param next the first slot to come
     */
    public record Due(Instant latest, int slots, Optional<Instant> next) {}
}
