/** An extract as a CSV file of RFC 4180. */
@NullMarked
package dev.oddsentry.extracts.csv;

import org.jspecify.annotations.NullMarked;
