/**
 * Relative dates and windows, calculated from a slot in a zone and never from a clock.
 */
@NullMarked
package dev.oddsentry.core.time;

import org.jspecify.annotations.NullMarked;
