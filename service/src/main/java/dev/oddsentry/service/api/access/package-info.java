/** Log-in, log-out and tokens. */
@NullMarked
package dev.oddsentry.service.api.access;

import org.jspecify.annotations.NullMarked;
