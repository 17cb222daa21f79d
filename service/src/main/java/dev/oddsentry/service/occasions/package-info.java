/** What begins checks besides the schedule: outside events, and the checks of rules that a rule follows. */
@NullMarked
package dev.oddsentry.service.occasions;

import org.jspecify.annotations.NullMarked;
