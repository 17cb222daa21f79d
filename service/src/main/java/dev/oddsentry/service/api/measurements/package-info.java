/** Measurements of a rule. */
@NullMarked
package dev.oddsentry.service.api.measurements;

import org.jspecify.annotations.NullMarked;
