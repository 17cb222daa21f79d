/** Calendars, next slots and the calendar feed. */
@NullMarked
package dev.oddsentry.service.api.schedules;

import org.jspecify.annotations.NullMarked;
