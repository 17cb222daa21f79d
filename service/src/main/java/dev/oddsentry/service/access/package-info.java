/**
 * Who may call what: log-in with session and CSRF token for the console, bearer tokens for the command line.
 */
@NullMarked
package dev.oddsentry.service.access;

import org.jspecify.annotations.NullMarked;
