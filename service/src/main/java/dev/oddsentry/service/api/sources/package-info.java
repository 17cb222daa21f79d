/** Sources, their tables and time zones. */
@NullMarked
package dev.oddsentry.service.api.sources;

import org.jspecify.annotations.NullMarked;
