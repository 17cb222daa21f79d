package dev.oddsentry.core.schedule;

import java.time.Instant;
import java.util.Optional;

/** Instants in order, one after the other, perhaps without end. */
interface Slots {
    /** The first instant strictly after {@code after}; empty once there is none. */
    Optional<Instant> nextAfter(Instant after);
}
