/** Files packed together, encrypted if wanted. */
@NullMarked
package dev.oddsentry.extracts.pack;

import org.jspecify.annotations.NullMarked;
