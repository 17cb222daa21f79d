/**
 * Running a saved query: one read-only transaction, streamed to its end or failed, never cut off.
 */
@NullMarked
package dev.oddsentry.service.queries;

import org.jspecify.annotations.NullMarked;
