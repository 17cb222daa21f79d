package dev.oddsentry.service.sources;

import dev.oddsentry.core.schedule.ClosedHours;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A named connection that queries read through; its password stays in the store.
 *
 * @param mostRows a result with more rows fails, it is never cut off
 * @param mostConnections queries that may run at once, at least two; a quarter of them, at least one, is for what people run by hand
 * @param closedHours in which checks wait; null where it is always open
 * @param teams whose members may use it; empty for all
 * @param spread how long after their slots checks may begin, each rule always as long
 */
public record Source(
        UUID id,
        String name,
        String jdbcUrl,
        String username,
        long mostRows,
        Duration timeLimit,
        int mostConnections,
        @Nullable ClosedHours closedHours,
        Duration spread,
        List<String> teams,
        Instant updatedAt) {
    /** How many of its connections the lane has. */
    public int connectionsFor(Lane lane) {
        int byHand = Math.max(1, mostConnections / 4);
        return switch (lane) {
            case BY_HAND -> byHand;
            case CHECKS -> Math.max(1, mostConnections - byHand);
        };
    }
}
