/** Takes away what is over and old enough. */
@NullMarked
package dev.oddsentry.service.retention;

import org.jspecify.annotations.NullMarked;
