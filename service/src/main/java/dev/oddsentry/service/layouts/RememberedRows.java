package dev.oddsentry.service.layouts;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.config.Installation;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import org.springframework.stereotype.Component;

/** Lays out rows of a rule's memory, when no query runs. */
@Component
public class RememberedRows {
    private final DefinitionStore definitions;
    private final Installation installation;

    RememberedRows(DefinitionStore definitions, Installation installation) {
        this.definitions = definitions;
        this.installation = installation;
    }

    /** @param because what makes an exception, as a clause that says of what */
    public record OfRule(ExtractRows rows, String because) {}

    /** @param rule with its layout resolved */
    public OfRule of(RuleDefinition rule, Moment moment, Thresholds among) {
        Current<QueryDefinition> query = definitions.query(rule.query()).orElseThrow();
        var labels = new RuleLabels(rule.groups(), query.definition(), among, moment.today());
        var conditions =
                CheckedRule.check(rule, definitions.columns(query), among, null).conditions();
        return new OfRule(
                new ExtractRows(rule, labels, conditions.at(moment, installation.digester()), conditions.shown()),
                labels.because(rule.exceptions(), rule.delivery().texts().language()));
    }
}
