/**
 * Messages queued with the check that made them, and their hand-over to the mail server, recipient by recipient.
 */
@NullMarked
package dev.oddsentry.service.outbox;

import org.jspecify.annotations.NullMarked;
