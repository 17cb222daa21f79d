/** Commands on definitions that are no longer used. */
@NullMarked
package dev.oddsentry.cli.archive;

import org.jspecify.annotations.NullMarked;
