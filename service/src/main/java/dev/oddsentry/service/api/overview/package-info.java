/** The day, findings of all rules, recipients, and changes. */
@NullMarked
package dev.oddsentry.service.api.overview;

import org.jspecify.annotations.NullMarked;
