/**
 * The current state, what was last reported, and the difference between them: updates. Pure values; the service stores them.
 */
@NullMarked
package dev.oddsentry.core.memory;

import org.jspecify.annotations.NullMarked;
