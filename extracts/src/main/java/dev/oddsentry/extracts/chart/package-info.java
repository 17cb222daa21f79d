/** How a measured value moved, as a picture and in words. */
@NullMarked
package dev.oddsentry.extracts.chart;

import org.jspecify.annotations.NullMarked;
