/**
 * What the API's controllers share: problems as problem+json, the console's pages, security headers.
 */
@NullMarked
package dev.oddsentry.service.web;

import org.jspecify.annotations.NullMarked;
