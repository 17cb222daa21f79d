/** What the formats share. */
@NullMarked
package dev.oddsentry.extracts;

import org.jspecify.annotations.NullMarked;
