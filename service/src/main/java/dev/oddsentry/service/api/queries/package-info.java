/** Queries, and running them by hand. */
@NullMarked
package dev.oddsentry.service.api.queries;

import org.jspecify.annotations.NullMarked;
