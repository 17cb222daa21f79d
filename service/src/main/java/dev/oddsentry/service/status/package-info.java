/** The state of the service: late and failing checks, queued messages. For people, health checks and metrics. */
@NullMarked
package dev.oddsentry.service.status;

import org.jspecify.annotations.NullMarked;
