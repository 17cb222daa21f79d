/** What people do with findings: take, snooze, accept. Written by people alone; checks respect it. */
@NullMarked
package dev.oddsentry.service.handling;

import org.jspecify.annotations.NullMarked;
