/**
 * Where core's memory is kept: findings, what was reported, events. Written only by the commit of a check.
 */
@NullMarked
package dev.oddsentry.service.memory;

import org.jspecify.annotations.NullMarked;
