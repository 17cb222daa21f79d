/**
 * A query's rows judged by a rule: which are exceptions, how bad, which cells made them so, and what stayed unknown.
 */
@NullMarked
package dev.oddsentry.core.judging;

import org.jspecify.annotations.NullMarked;
