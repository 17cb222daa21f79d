/** Unsubscribed recipients, blocked addresses, languages, and the pages behind an unsubscribe link. */
@NullMarked
package dev.oddsentry.service.api.recipients;

import org.jspecify.annotations.NullMarked;
