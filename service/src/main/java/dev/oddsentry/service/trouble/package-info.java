/**
 * Checks that fail, told to those who own them once a cause, and not once a check.
 */
@NullMarked
package dev.oddsentry.service.trouble;

import org.jspecify.annotations.NullMarked;
