/** Who did what. */
@NullMarked
package dev.oddsentry.service.api.audit;

import org.jspecify.annotations.NullMarked;
