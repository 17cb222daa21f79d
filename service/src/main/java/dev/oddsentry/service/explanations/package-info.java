/** Why a row was or was not reported: its current result, its timeline, and what one person was sent on one day. Reads only. */
@NullMarked
package dev.oddsentry.service.explanations;

import org.jspecify.annotations.NullMarked;
