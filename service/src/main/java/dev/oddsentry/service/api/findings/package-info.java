/** Findings of a rule, their export, and handling. */
@NullMarked
package dev.oddsentry.service.api.findings;

import org.jspecify.annotations.NullMarked;
