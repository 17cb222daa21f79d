/** The service: sources, checks, memory, outbox and the HTTP API around the core. */
@NullMarked
package dev.oddsentry.service;

import org.jspecify.annotations.NullMarked;
