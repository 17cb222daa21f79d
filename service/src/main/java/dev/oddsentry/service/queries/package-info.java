/**
 * Running a saved query: one read-only transaction, read to its end or failed, never cut off. Also what people ask while they write one.
 */
@NullMarked
package dev.oddsentry.service.queries;

import org.jspecify.annotations.NullMarked;
