package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Digest;
import org.jspecify.annotations.Nullable;

/**
 * A finding as memory holds it before a check.
 *
 * @param id the store's number of it
 * @param reported null while nothing was ever told or let pass
 */
public record Known(long id, Digest key, Now now, @Nullable Reported reported) {}
