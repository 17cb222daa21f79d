/** From updates to messages: who is sent what in which language, its text, its attachments and its chart. */
@NullMarked
package dev.oddsentry.service.messages;

import org.jspecify.annotations.NullMarked;
