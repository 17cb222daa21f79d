/** What starts on its own: due slots, missed slots and the list of all background work. */
@NullMarked
package dev.oddsentry.service.work;

import org.jspecify.annotations.NullMarked;
