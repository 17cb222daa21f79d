/** Conditions while they are being written: their tree, sentence and problems, and what may come next. */
@NullMarked
package dev.oddsentry.service.conditions;

import org.jspecify.annotations.NullMarked;
