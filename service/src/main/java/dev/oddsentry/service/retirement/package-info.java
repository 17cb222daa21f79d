/** What is no longer used: retired, restored, removed for good, or handed over. */
@NullMarked
package dev.oddsentry.service.retirement;

import org.jspecify.annotations.NullMarked;
