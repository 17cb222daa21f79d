/** Running checks, and when they run: schedules, calendars and external events. */
@NullMarked
package dev.oddsentry.cli.checks;

import org.jspecify.annotations.NullMarked;
