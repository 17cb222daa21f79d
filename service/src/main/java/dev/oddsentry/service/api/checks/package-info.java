/** Checks: starting, stopping, approving, and their outcomes. */
@NullMarked
package dev.oddsentry.service.api.checks;

import org.jspecify.annotations.NullMarked;
