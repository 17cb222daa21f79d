package dev.oddsentry.service.layouts;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.thresholds.ThresholdStore;
import java.time.Clock;
import org.springframework.stereotype.Component;

/** What people call the things that a saved rule names, with its thresholds as they are today. */
@Component
public class Labels {
    private final DefinitionStore definitions;
    private final ThresholdStore thresholds;
    private final Clock clock;

    Labels(DefinitionStore definitions, ThresholdStore thresholds, Clock clock) {
        this.definitions = definitions;
        this.thresholds = thresholds;
        this.clock = clock;
    }

    public RuleLabels of(RuleDefinition rule) {
        var query = definitions.query(rule.query()).orElseThrow().definition();
        var today = clock.instant().atZone(rule.zone()).toLocalDate();
        return new RuleLabels(rule.groups(), query, thresholds.named(rule.thresholdsUsed()), today);
    }
}
