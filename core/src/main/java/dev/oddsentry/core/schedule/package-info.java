/**
 * When a rule is due: RFC 5545 recurrences in a time zone and the slots they give.
 */
@NullMarked
package dev.oddsentry.core.schedule;

import org.jspecify.annotations.NullMarked;
