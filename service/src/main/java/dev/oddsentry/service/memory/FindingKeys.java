package dev.oddsentry.service.memory;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.RULE_COPY;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Digester;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.service.config.Installation;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.web.RefusedException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Identities as people write them: the values of the key columns, in their order. */
@Component
public class FindingKeys {
    /** How a missing value is written. */
    public static final String MISSING = "missing";

    private final DefinitionStore definitions;
    private final ThresholdStore thresholds;
    private final Digester digester;
    private final DSLContext db;

    FindingKeys(DefinitionStore definitions, ThresholdStore thresholds, Installation installation, DSLContext db) {
        this.definitions = definitions;
        this.thresholds = thresholds;
        this.digester = installation.digester();
        this.db = db;
    }

    /** @param copy the personal copy that it belongs to; null where the rule has none */
    public record Identity(
            Digest key,
            List<@Nullable Object> cells,
            @Nullable String copy) {}

    /**
     * @param copy whose personal copy; null where the rule has none, or for the one that has found it
     * @throws RefusedException with what the rule's key is, if the texts do not fit it, or if it is not clear which copy is meant
     */
    public Identity read(Current<RuleDefinition> rule, List<String> texts, @Nullable String copy) {
        var cells = cells(rule, texts);
        if (rule.definition().copies() == null) return new Identity(digester.digest(cells), cells, null);
        String of = copy != null
                ? copy
                : finderOf(rule, cells, rule.definition().copies().key());
        return new Identity(digester.of(of).digest(cells), cells, of);
    }

    private String finderOf(Current<RuleDefinition> rule, List<@Nullable Object> cells, String whose) {
        var digests = new HashMap<UUID, String>();
        db.select(RULE_COPY.COPY_KEY)
                .from(RULE_COPY)
                .where(RULE_COPY.RULE_ID.eq(rule.ruleId()))
                .forEach(row ->
                        digests.put(digester.of(row.value1()).digest(cells).asUuid(), row.value1()));
        var found = db.select(FINDING.KEY)
                .from(FINDING)
                .where(FINDING.RULE_ID.eq(rule.ruleId()), FINDING.KEY.in(digests.keySet()))
                .fetch(row -> Objects.requireNonNull(digests.get(row.value1())));
        if (found.size() == 1) return found.getFirst();
        throw RefusedException.invalid("The rule has a personal copy for each " + whose
                + (found.isEmpty()
                        ? ", and none of them has found that; say which one is meant."
                        : ", and those for " + found.stream().sorted().collect(Collectors.joining(", "))
                                + " have found it; say which one is meant."));
    }

    private List<@Nullable Object> cells(Current<RuleDefinition> rule, List<String> texts) {
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
        var columns = CheckedRule.check(rule.definition(), definitions.columns(query), used, null)
                .conditions()
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
        return cells;
    }
}
