/** One class for each command: what it asks of the service and how it tells the answer. */
@NullMarked
package dev.oddsentry.cli.commands;

import org.jspecify.annotations.NullMarked;
