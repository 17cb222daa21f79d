/**
 * Settings, the clock, the durable-work scheduler: what the other packages are given.
 */
@NullMarked
package dev.oddsentry.service.config;

import org.jspecify.annotations.NullMarked;
