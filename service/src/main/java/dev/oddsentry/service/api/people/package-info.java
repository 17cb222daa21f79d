/** Users and teams. */
@NullMarked
package dev.oddsentry.service.api.people;

import org.jspecify.annotations.NullMarked;
