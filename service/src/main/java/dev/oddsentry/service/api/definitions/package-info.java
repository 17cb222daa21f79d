/** Definitions, their drafts, revisions, review and schema. */
@NullMarked
package dev.oddsentry.service.api.definitions;

import org.jspecify.annotations.NullMarked;
