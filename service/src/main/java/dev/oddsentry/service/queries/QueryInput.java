package dev.oddsentry.service.queries;

import java.time.ZoneId;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a query is run with.
 *
 * @param values of its parameters by name; null for an optional one without a value
 * @param zone of its session: in which the source reads and writes local times and dates
 */
public record QueryInput(Map<String, ? extends @Nullable Object> values, ZoneId zone) {}
