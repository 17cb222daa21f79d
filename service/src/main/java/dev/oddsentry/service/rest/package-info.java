/** Servers outside that fail are left alone for growing pauses. */
@NullMarked
package dev.oddsentry.service.rest;

import org.jspecify.annotations.NullMarked;
