/**
 * The documents of a query and a rule: read with every problem at once, checked, printed. Storing them is not done here.
 */
@NullMarked
package dev.oddsentry.core.definition;

import org.jspecify.annotations.NullMarked;
