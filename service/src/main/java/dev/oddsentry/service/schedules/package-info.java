/**
 * When checks run: the durable task of each rule, and the slot it stands for.
 */
@NullMarked
package dev.oddsentry.service.schedules;

import org.jspecify.annotations.NullMarked;
