/** Trying rules and conditions; nothing is reported or sent. */
@NullMarked
package dev.oddsentry.cli.trying;

import org.jspecify.annotations.NullMarked;
