/** What checks measured, kept for later checks. */
@NullMarked
package dev.oddsentry.service.measurements;

import org.jspecify.annotations.NullMarked;
