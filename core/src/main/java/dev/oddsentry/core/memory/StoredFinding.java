package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Digest;

/**
 * A finding as memory holds it before a check.
 *
 * @param id the store's number of it, from 1
 */
public record StoredFinding(long id, Digest key, CurrentFinding now) {}
