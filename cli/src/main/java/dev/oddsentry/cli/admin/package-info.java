/** What operators do: sources, mail servers, users and teams. */
@NullMarked
package dev.oddsentry.cli.admin;

import org.jspecify.annotations.NullMarked;
