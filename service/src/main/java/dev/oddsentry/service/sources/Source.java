package dev.oddsentry.service.sources;

import java.time.Duration;
import java.time.Instant;
import java.util.UUID;

/**
 * A named connection that queries read through; its password stays in the store.
 *
 * @param mostRows a result with more rows fails, it is never cut off
 * @param mostConnections queries that may run at once
 */
public record Source(
        UUID id,
        String name,
        String jdbcUrl,
        String username,
        long mostRows,
        Duration timeLimit,
        int mostConnections,
        Instant updatedAt) {}
