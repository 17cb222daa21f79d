/**
 * The condition language: text to tree, tree to checked condition, condition to a evaluator of rows, and a tree back to text.
 * The stages stand in pipeline order: {@code Lexer}, {@code Parser}, {@code TypeChecker}, {@code Compiler}.
 */
@NullMarked
package dev.oddsentry.core.condition;

import org.jspecify.annotations.NullMarked;
