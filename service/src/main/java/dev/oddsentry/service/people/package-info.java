/**
 * The people who log in, and their roles.
 */
@NullMarked
package dev.oddsentry.service.people;

import org.jspecify.annotations.NullMarked;
