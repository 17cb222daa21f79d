/** Definitions that were retired. */
@NullMarked
package dev.oddsentry.service.api.archive;

import org.jspecify.annotations.NullMarked;
