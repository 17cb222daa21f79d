/**
 * The running state of rules: draft, active, paused, and what belongs to one check of them.
 */
@NullMarked
package dev.oddsentry.service.rules;

import org.jspecify.annotations.NullMarked;
