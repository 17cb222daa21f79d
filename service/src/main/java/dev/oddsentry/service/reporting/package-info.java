/**
 * What each audience is sent: of all updates those that the rule reports, those that wait, and those that are treated as known.
 */
@NullMarked
package dev.oddsentry.service.reporting;

import org.jspecify.annotations.NullMarked;
