/** Testing the mail servers. */
@NullMarked
package dev.oddsentry.service.api.mail;

import org.jspecify.annotations.NullMarked;
