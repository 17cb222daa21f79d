/**
 * A query's rows evaluated by a rule: which are exceptions, how bad, which cells made them so, and what stayed unknown.
 */
@NullMarked
package dev.oddsentry.core.evaluation;

import org.jspecify.annotations.NullMarked;
