/** Checks that save and send nothing: preview, trial of a condition, one row, messages as they would be, effects of edits. */
@NullMarked
package dev.oddsentry.service.previews;

import org.jspecify.annotations.NullMarked;
