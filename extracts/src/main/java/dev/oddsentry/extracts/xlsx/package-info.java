/** An extract as a workbook. */
@NullMarked
package dev.oddsentry.extracts.xlsx;

import org.jspecify.annotations.NullMarked;
