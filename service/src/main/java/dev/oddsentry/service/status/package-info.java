/**
 * How the service fares: what is late, what fails, what waits. For people, for health checks and for metrics.
 */
@NullMarked
package dev.oddsentry.service.status;

import org.jspecify.annotations.NullMarked;
