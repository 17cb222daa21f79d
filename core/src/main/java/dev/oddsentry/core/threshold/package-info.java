/** Named numbers that conditions use, perhaps kept by key, each value from a date on. */
@NullMarked
package dev.oddsentry.core.threshold;

import org.jspecify.annotations.NullMarked;
