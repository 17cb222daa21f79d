/**
 * What is wrong with something a person wrote: where, what was seen, what would be right.
 */
@NullMarked
package dev.oddsentry.core.problem;

import org.jspecify.annotations.NullMarked;
