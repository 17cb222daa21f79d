/**
 * What nobody has taken, snoozed or accepted so long after it was told: passed on to others, once.
 */
@NullMarked
package dev.oddsentry.service.escalations;

import org.jspecify.annotations.NullMarked;
