/** The personal copies of a rule: one for each row of its recipient query. */
@NullMarked
package dev.oddsentry.service.copies;

import org.jspecify.annotations.NullMarked;
