/** External events and the addresses that receive them. */
@NullMarked
package dev.oddsentry.service.api.triggers;

import org.jspecify.annotations.NullMarked;
