/** An extract as a page of its own: HTML, and PDF made from it. */
@NullMarked
package dev.oddsentry.extracts.page;

import org.jspecify.annotations.NullMarked;
