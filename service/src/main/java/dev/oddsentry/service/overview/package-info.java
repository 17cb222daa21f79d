/**
 * What people see across rules: the day, open findings, recipients, saved filters, and changes while a console listens. Reads only.
 */
@NullMarked
package dev.oddsentry.service.overview;

import org.jspecify.annotations.NullMarked;
