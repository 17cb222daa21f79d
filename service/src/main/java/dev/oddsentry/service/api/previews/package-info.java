/** Trying a condition without a rule. */
@NullMarked
package dev.oddsentry.service.api.previews;

import org.jspecify.annotations.NullMarked;
