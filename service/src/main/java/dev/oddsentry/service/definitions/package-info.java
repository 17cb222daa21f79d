/** The store of definitions and of all their revisions. */
@NullMarked
package dev.oddsentry.service.definitions;

import org.jspecify.annotations.NullMarked;
