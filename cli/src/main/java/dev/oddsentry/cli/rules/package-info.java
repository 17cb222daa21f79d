/** Writing rules: rules and thresholds, their drafts, revisions and states, and definition files. */
@NullMarked
package dev.oddsentry.cli.rules;

import org.jspecify.annotations.NullMarked;
