/** Thresholds: their values over time, who set them, and which rules use them. */
@NullMarked
package dev.oddsentry.service.thresholds;

import org.jspecify.annotations.NullMarked;
