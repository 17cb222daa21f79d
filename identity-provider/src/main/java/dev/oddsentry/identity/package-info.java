/** A stand-in identity provider: who somebody is, as a department's own would say it. */
@NullMarked
package dev.oddsentry.identity;

import org.jspecify.annotations.NullMarked;
