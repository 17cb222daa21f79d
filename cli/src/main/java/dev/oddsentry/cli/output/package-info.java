/** Tables, CSV and JSON on standard output. */
@NullMarked
package dev.oddsentry.cli.output;

import org.jspecify.annotations.NullMarked;
