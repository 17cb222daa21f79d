/** Evaluating a rule at one slot: its inputs, reading the rows, and what was found. */
@NullMarked
package dev.oddsentry.service.evaluation;

import org.jspecify.annotations.NullMarked;
