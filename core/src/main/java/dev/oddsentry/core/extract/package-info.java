/**
 * The extract as a model: which columns, which rows, which cells are marked. Writing it to a file is not done here.
 */
@NullMarked
package dev.oddsentry.core.extract;

import org.jspecify.annotations.NullMarked;
