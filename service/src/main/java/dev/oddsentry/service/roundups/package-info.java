/** Round-ups: one message about several rules, at its own times. */
@NullMarked
package dev.oddsentry.service.roundups;

import org.jspecify.annotations.NullMarked;
