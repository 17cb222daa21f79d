/** An extract as JSON. */
@NullMarked
package dev.oddsentry.extracts.json;

import org.jspecify.annotations.NullMarked;
