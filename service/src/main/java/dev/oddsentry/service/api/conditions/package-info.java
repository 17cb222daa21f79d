/** Conditions while they are written: tree, sentence, problems and suggestions. */
@NullMarked
package dev.oddsentry.service.api.conditions;

import org.jspecify.annotations.NullMarked;
