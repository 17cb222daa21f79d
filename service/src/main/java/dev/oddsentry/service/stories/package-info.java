/**
 * Why a finding was, or was not, told: its story, and what one person was told on one day. Reads only, and decides nothing.
 */
@NullMarked
package dev.oddsentry.service.stories;

import org.jspecify.annotations.NullMarked;
