/**
 * What makes a finding that finding: its identity, the canonical encoding of identities and watched columns, and severity.
 */
@NullMarked
package dev.oddsentry.core.finding;

import org.jspecify.annotations.NullMarked;
