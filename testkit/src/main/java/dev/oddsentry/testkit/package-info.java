/** What tests and the build need and the product does not: a throw-away PostgreSQL, a settable clock, generated tables. */
@NullMarked
package dev.oddsentry.testkit;

import org.jspecify.annotations.NullMarked;
