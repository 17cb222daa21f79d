/** What recipients see and choose for themselves, by the link in each message, and the collections that come of it. */
@NullMarked
package dev.oddsentry.service.readers;

import org.jspecify.annotations.NullMarked;
