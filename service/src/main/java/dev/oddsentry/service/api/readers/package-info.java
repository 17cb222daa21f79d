/** The page of a recipient without an account, and what owners see of the choices that were made there. */
@NullMarked
package dev.oddsentry.service.api.readers;

import org.jspecify.annotations.NullMarked;
