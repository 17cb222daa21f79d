/** Round-ups: one mail with the news of several rules, at times of its own. */
@NullMarked
package dev.oddsentry.service.roundups;

import org.jspecify.annotations.NullMarked;
