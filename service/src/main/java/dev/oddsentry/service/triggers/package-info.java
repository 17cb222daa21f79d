/** What starts checks in addition to the schedule: external events, and the outcomes of other rules. */
@NullMarked
package dev.oddsentry.service.triggers;

import org.jspecify.annotations.NullMarked;
