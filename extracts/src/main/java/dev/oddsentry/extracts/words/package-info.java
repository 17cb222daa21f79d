/**
 * The words of mails and files, in each of their languages.
 */
@NullMarked
package dev.oddsentry.extracts.words;

import org.jspecify.annotations.NullMarked;
