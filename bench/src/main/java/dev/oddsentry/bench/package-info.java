/** What is claimed of speed, measured beside the limit it is held against. */
@NullMarked
package dev.oddsentry.bench;

import org.jspecify.annotations.NullMarked;
