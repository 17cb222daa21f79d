/** Secrets: encrypting what is kept, hashing what is only recognised, and making up what nobody can guess. */
@NullMarked
package dev.oddsentry.service.secrets;

import org.jspecify.annotations.NullMarked;
