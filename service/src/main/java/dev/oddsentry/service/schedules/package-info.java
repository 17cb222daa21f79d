/** Calendars, the dates that schedules give, and the durable task of each rule. */
@NullMarked
package dev.oddsentry.service.schedules;

import org.jspecify.annotations.NullMarked;
