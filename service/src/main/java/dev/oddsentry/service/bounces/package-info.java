/**
 * What comes back: the mailbox of undeliverable mail, read for delivery reports alone. Nothing is ever answered.
 */
@NullMarked
package dev.oddsentry.service.bounces;

import org.jspecify.annotations.NullMarked;
