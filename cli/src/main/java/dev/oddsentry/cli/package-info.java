/** The command line. */
@NullMarked
package dev.oddsentry.cli;

import org.jspecify.annotations.NullMarked;
