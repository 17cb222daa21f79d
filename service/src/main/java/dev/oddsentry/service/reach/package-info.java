/**
 * Whom mail no longer reaches: readers who stopped a rule's mails, and addresses from which mail comes back.
 */
@NullMarked
package dev.oddsentry.service.reach;

import org.jspecify.annotations.NullMarked;
