/** What each person sees of definitions and of what comes of them. */
@NullMarked
package dev.oddsentry.service.visibility;

import org.jspecify.annotations.NullMarked;
