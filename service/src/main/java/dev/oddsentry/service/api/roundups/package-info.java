/** Round-ups. */
@NullMarked
package dev.oddsentry.service.api.roundups;

import org.jspecify.annotations.NullMarked;
