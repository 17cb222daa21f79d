/** What happens to a person's account: invitation, password, disabling, and what they leave behind. */
@NullMarked
package dev.oddsentry.service.accounts;

import org.jspecify.annotations.NullMarked;
