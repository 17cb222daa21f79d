/**
 * The one door through which queries and rules are saved, and every revision of them.
 */
@NullMarked
package dev.oddsentry.service.definitions;

import org.jspecify.annotations.NullMarked;
