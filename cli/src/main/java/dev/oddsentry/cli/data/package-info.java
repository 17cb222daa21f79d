/** Reading data: sources and queries. */
@NullMarked
package dev.oddsentry.cli.data;

import org.jspecify.annotations.NullMarked;
