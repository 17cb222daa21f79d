/**
 * The time that counts: the database's, which all nodes share, and a watch over this machine's own clock.
 */
@NullMarked
package dev.oddsentry.service.clock;

import org.jspecify.annotations.NullMarked;
