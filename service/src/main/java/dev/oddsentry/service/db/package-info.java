/**
 * Shared helpers over jOOQ; the tables' classes are generated from the migrations beside it.
 */
@NullMarked
package dev.oddsentry.service.db;

import org.jspecify.annotations.NullMarked;
