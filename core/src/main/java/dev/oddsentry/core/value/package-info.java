/**
 * Typed cells, columns and rows of a query's result: what a cell may hold and how two cells compare. It knows no
 * database; sources bring their values into these few classes at the edge.
 */
@NullMarked
package dev.oddsentry.core.value;

import org.jspecify.annotations.NullMarked;
