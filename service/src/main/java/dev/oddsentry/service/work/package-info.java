/** What wakes by itself: due slots, missed slots and the list of all background work. */
@NullMarked
package dev.oddsentry.service.work;

import org.jspecify.annotations.NullMarked;
