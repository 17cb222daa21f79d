/** Single sign-on over HTTP: the way out to an identity provider and back, and setting providers up. */
@NullMarked
package dev.oddsentry.service.api.signon;

import org.jspecify.annotations.NullMarked;
