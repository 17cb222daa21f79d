/**
 * What a mail says, in HTML and in plain text with the same rows: an {@link dev.oddsentry.extracts.mail.Announcement} in, text
 * out. Building the message around it (addresses, headers, attachments) is the service's.
 */
@NullMarked
package dev.oddsentry.extracts.mail;

import org.jspecify.annotations.NullMarked;
