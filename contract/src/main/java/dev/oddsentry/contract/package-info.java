/** The answers and requests of the API as records, generated from {@code openapi.json}. A code or a number of a thing is its text, so that one of a later service is not refused. */
@NullMarked
package dev.oddsentry.contract;

import org.jspecify.annotations.NullMarked;
