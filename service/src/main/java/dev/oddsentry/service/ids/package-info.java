/** The numbers of things, each a type of its own, so that none is taken for another. */
@NullMarked
package dev.oddsentry.service.ids;

import org.jspecify.annotations.NullMarked;
