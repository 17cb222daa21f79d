/**
 * Which days are worked, and the dates that schedules give on them.
 */
@NullMarked
package dev.oddsentry.service.calendars;

import org.jspecify.annotations.NullMarked;
