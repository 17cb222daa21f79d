/** The demo's world: Skerry Line, a ferry company of our own invention, and a mail server to send its mail to. */
@NullMarked
package dev.oddsentry.demo;

import org.jspecify.annotations.NullMarked;
