/** The HTTP API as the commands call it, and where a log-in is kept. */
@NullMarked
package dev.oddsentry.cli.client;

import org.jspecify.annotations.NullMarked;
