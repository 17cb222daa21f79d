/**
 * One check, step by step: begin, read and judge, tell, commit. {@link CheckRunner} calls one class for each step.
 */
@NullMarked
package dev.oddsentry.service.checks;

import org.jspecify.annotations.NullMarked;
