/**
 * One check from start to commit. {@link CheckRunner} calls one class for each step: start, evaluate, plan the report, write messages, commit.
 */
@NullMarked
package dev.oddsentry.service.checks;

import org.jspecify.annotations.NullMarked;
