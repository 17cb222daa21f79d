/**
 * The text of a definition as fields: what may stand in each, how it is read with its place, written back and described. Which fields there are is said by
 * {@code definition}.
 */
@NullMarked
package dev.oddsentry.core.document;

import org.jspecify.annotations.NullMarked;
