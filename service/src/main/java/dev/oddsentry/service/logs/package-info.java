/**
 * What the log says of failures that are expected, and how briefly.
 */
@NullMarked
package dev.oddsentry.service.logs;

import org.jspecify.annotations.NullMarked;
