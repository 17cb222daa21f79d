/** Controllers and the views they show, a folder for each concept; the description of them all. */
@NullMarked
package dev.oddsentry.service.api;

import org.jspecify.annotations.NullMarked;
