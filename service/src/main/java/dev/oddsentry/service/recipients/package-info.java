/** Recipients whose mail stopped, because they unsubscribed or their address bounces, and the languages they read. */
@NullMarked
package dev.oddsentry.service.recipients;

import org.jspecify.annotations.NullMarked;
