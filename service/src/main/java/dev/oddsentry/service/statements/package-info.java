/** How rules were checked over a while, and what they did not report. */
@NullMarked
package dev.oddsentry.service.statements;

import org.jspecify.annotations.NullMarked;
