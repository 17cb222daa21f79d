/** Thresholds and their values. */
@NullMarked
package dev.oddsentry.service.api.thresholds;

import org.jspecify.annotations.NullMarked;
