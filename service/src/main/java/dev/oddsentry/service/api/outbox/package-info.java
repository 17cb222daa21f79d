/** Messages, attachments and mail holds. */
@NullMarked
package dev.oddsentry.service.api.outbox;

import org.jspecify.annotations.NullMarked;
