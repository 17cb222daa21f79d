/** Findings, their handling and their explanation. */
@NullMarked
package dev.oddsentry.cli.findings;

import org.jspecify.annotations.NullMarked;
