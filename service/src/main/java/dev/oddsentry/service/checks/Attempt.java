package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.sources.Source;
import java.time.Instant;
import java.util.UUID;

/**
 * One attempt at a check, with everything as it stood at the start. The commit asks for all of it to stand still.
 *
 * @param number of the attempt; a later one makes this one stale
 * @param memoryEpoch of the rule's memory
 */
record Attempt(
        UUID checkId,
        int number,
        Instant slot,
        long memoryEpoch,
        Current<RuleDefinition> rule,
        Current<QueryDefinition> query,
        Source source) {

    UUID ruleId() {
        return rule.id();
    }

    Moment moment() {
        return new Moment(slot, rule.definition().zone());
    }
}
