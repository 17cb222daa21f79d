/** Back-tests. */
@NullMarked
package dev.oddsentry.service.api.backtests;

import org.jspecify.annotations.NullMarked;
