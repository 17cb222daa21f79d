/**
 * Who did what.
 */
@NullMarked
package dev.oddsentry.service.audit;

import org.jspecify.annotations.NullMarked;
