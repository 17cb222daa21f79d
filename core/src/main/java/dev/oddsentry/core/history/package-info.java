/** What earlier checks measured, and what the present is held against: the value before, the usual one, the trend. */
@NullMarked
package dev.oddsentry.core.history;

import org.jspecify.annotations.NullMarked;
