/** Messages, recipients and round-ups. */
@NullMarked
package dev.oddsentry.cli.mail;

import org.jspecify.annotations.NullMarked;
