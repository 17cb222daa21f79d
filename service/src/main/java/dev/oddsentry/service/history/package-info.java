/** What checks measured, kept for later checks. */
@NullMarked
package dev.oddsentry.service.history;

import org.jspecify.annotations.NullMarked;
