/**
 * Building the bytes of a message, and the SMTP conversation.
 */
@NullMarked
package dev.oddsentry.service.mail;

import org.jspecify.annotations.NullMarked;
