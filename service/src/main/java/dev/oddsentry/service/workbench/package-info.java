/**
 * What people ask while they write queries and rules: which queries there are, what a source holds, what a query returns, what a
 * parameter may be and what a relative date means today. Nothing here is saved or remembered; saving is in {@code definitions}.
 */
@NullMarked
package dev.oddsentry.service.workbench;

import org.jspecify.annotations.NullMarked;
