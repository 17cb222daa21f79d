/** What makes a check fail. */
@NullMarked
package dev.oddsentry.service.failures;

import org.jspecify.annotations.NullMarked;
