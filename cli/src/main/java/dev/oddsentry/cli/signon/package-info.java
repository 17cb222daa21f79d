/** Commands about identity providers. */
@NullMarked
package dev.oddsentry.cli.signon;

import org.jspecify.annotations.NullMarked;
