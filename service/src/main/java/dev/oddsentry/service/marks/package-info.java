/**
 * What people say of findings: taken, snoozed, accepted. Written by people alone; checks honour them.
 */
@NullMarked
package dev.oddsentry.service.marks;

import org.jspecify.annotations.NullMarked;
