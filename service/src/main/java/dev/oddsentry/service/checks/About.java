package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.judging.RuleLabels;
import dev.oddsentry.core.time.Moment;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * What a mail is about.
 *
 * @param ruleId whose memory says what was told before; null for a rule that was never saved
 * @param title what the mail calls it
 * @param labels the words of its columns and conditions
 */
record About(@Nullable UUID ruleId, RuleDefinition rule, String title, Moment moment, RuleLabels labels) {}
