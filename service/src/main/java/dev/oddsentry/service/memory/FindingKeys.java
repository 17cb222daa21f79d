package dev.oddsentry.service.memory;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.judging.RuleJudges;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.service.config.Installation;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.web.RefusedException;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Identities as people write them: the values of the key columns, in their order. */
@Component
public class FindingKeys {
    /** How a missing value is written. */
    public static final String MISSING = "missing";

    private final DefinitionStore definitions;
    private final ThresholdStore thresholds;
    private final Installation installation;

    FindingKeys(DefinitionStore definitions, ThresholdStore thresholds, Installation installation) {
        this.definitions = definitions;
        this.thresholds = thresholds;
        this.installation = installation;
    }

    public record Identity(Digest key, List<@Nullable Object> cells) {}

    /** @throws RefusedException with what the rule's key is, if the texts do not fit it */
    public Identity read(Current<RuleDefinition> rule, List<String> texts) {
        var names = rule.definition().key();
        if (names.isEmpty() && rule.definition().groups() == null)
            throw RefusedException.invalid(
                    "This rule has no key columns, so its findings have no names; ask by the finding's number.");
        if (texts.size() != names.size())
            throw RefusedException.invalid("The key is " + (names.isEmpty() ? "empty" : String.join(", ", names))
                    + ": give " + names.size() + " value" + (names.size() == 1 ? "" : "s") + ", not " + texts.size()
                    + ".");
        var query = definitions.query(rule.definition().query()).orElseThrow();
        var used = thresholds.named(rule.definition().thresholdsUsed());
        var columns = RuleJudges.check(rule.definition(), definitions.columns(query), used, null)
                .judges()
                .columns();
        var cells = new ArrayList<@Nullable Object>();
        for (int i = 0; i < names.size(); i++) {
            var type = columns.at(columns.require(names.get(i))).type();
            try {
                boolean missing = texts.get(i).equals(MISSING);
                cells.add(
                        missing
                                ? null
                                : CellText.parse(
                                        texts.get(i), type, rule.definition().zone()));
            } catch (IllegalArgumentException notOne) {
                throw RefusedException.invalid("The key's " + names.get(i) + ": " + notOne.getMessage() + ".");
            }
        }
        return new Identity(installation.digester().digest(cells), cells);
    }
}
