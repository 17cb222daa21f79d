package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.memory.Known;
import dev.oddsentry.core.memory.Patience;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.sources.Source;
import java.util.List;

/**
 * What is asked at one slot, with everything that the answer depends on besides the source's rows.
 *
 * @param known every finding as memory holds it
 * @param tick how the rule's good checks are counted at this one
 * @param curious whether a person looks on, who wants to be told of texts that no row has
 */
public record Question(
        RuleDefinition rule,
        QueryDefinition query,
        Source source,
        Moment moment,
        Thresholds thresholds,
        List<Known> known,
        Patience.Tick tick,
        Past past,
        boolean curious) {}
