/** How rules were checked, over HTTP. */
@NullMarked
package dev.oddsentry.service.api.statements;

import org.jspecify.annotations.NullMarked;
