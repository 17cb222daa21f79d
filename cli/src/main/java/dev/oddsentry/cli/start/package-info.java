/** Getting started: log-in, state of the service, tests of its parts, completion. */
@NullMarked
package dev.oddsentry.cli.start;

import org.jspecify.annotations.NullMarked;
