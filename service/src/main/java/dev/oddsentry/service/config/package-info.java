/** Settings, this node, the durable-work scheduler and pauses for servers that fail: what all other rooms are given. */
@NullMarked
package dev.oddsentry.service.config;

import org.jspecify.annotations.NullMarked;
