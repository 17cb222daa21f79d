/** Saving definitions: what is checked before, what each save changes, drafts, and changes of thresholds. */
@NullMarked
package dev.oddsentry.service.authoring;

import org.jspecify.annotations.NullMarked;
