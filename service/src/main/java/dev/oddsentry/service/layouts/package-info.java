/** Rows, of a result or of memory, laid out as the rows of an extract. */
@NullMarked
package dev.oddsentry.service.layouts;

import org.jspecify.annotations.NullMarked;
