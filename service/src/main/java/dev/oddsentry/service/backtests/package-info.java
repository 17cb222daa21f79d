/** Long work over past slots: how often a rule would have fired, and filling in what it would have measured. */
@NullMarked
package dev.oddsentry.service.backtests;

import org.jspecify.annotations.NullMarked;
