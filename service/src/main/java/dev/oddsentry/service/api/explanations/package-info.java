/** Explanations of rows and reports. */
@NullMarked
package dev.oddsentry.service.api.explanations;

import org.jspecify.annotations.NullMarked;
