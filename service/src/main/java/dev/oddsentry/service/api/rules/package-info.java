/** Rules, their states, and actions on many rules. */
@NullMarked
package dev.oddsentry.service.api.rules;

import org.jspecify.annotations.NullMarked;
