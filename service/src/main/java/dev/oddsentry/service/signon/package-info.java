/** Single sign-on: identity providers say who somebody is, in which groups, and whether they are still there. */
@NullMarked
package dev.oddsentry.service.signon;

import org.jspecify.annotations.NullMarked;
