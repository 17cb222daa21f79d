/** Findings that nobody takes, snoozes or accepts in time: sent to further recipients, once. */
@NullMarked
package dev.oddsentry.service.escalations;

import org.jspecify.annotations.NullMarked;
