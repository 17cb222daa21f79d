/** Checks that fail: one incident for each cause, and the failure notices to its team. */
@NullMarked
package dev.oddsentry.service.incidents;

import org.jspecify.annotations.NullMarked;
