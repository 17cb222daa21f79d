/**
 * Named connections that queries read through: each with its own pool, limits and an encrypted password.
 */
@NullMarked
package dev.oddsentry.service.sources;

import org.jspecify.annotations.NullMarked;
