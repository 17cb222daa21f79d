/** The state of the service. */
@NullMarked
package dev.oddsentry.service.api.status;

import org.jspecify.annotations.NullMarked;
