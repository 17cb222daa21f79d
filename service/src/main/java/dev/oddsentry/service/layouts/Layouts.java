package dev.oddsentry.service.layouts;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.LayoutDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.web.RefusedException;
import java.util.HashMap;
import java.util.List;
import org.springframework.stereotype.Component;

/** The layouts that several rules use under a name. */
@Component
public class Layouts {
    private final DefinitionStore definitions;
    private final ThresholdStore thresholds;

    private final UnknownNames unknown;
    private final Visibility visibility;

    Layouts(DefinitionStore definitions, ThresholdStore thresholds, UnknownNames unknown, Visibility visibility) {
        this.visibility = visibility;
        this.unknown = unknown;
        this.thresholds = thresholds;
        this.definitions = definitions;
    }

    /**
     * The rule as a person wants its rows for once.
     *
     * @throws RefusedException if there is no such layout, it is another's, or it does not fit the rule
     */
    public RuleDefinition inLayout(Person by, RuleDefinition rule, String name) {
        var found = definitions
                .layout(name)
                .filter(layout -> visibility.now().includes(layout.id()))
                .map(Current::definition)
                .filter(layout ->
                        layout.privateTo() == null || layout.privateTo().equals(by.login()))
                .orElseThrow(() -> unknown.of(Kind.LAYOUT, name));
        var checked = rule.withDelivery(rule.delivery().instead(found.layout()));
        var columns = definitions.columns(definitions.query(rule.query()).orElseThrow());
        try {
            CheckedRule.check(checked, columns, thresholds.all(), null);
        } catch (InvalidDefinitionException unfit) {
            throw RefusedException.invalid("The layout " + name + " does not fit the rule: "
                    + unfit.problems().getFirst().message() + ".");
        }
        return checked;
    }

    /** The rule with what its shared layout says; the rule itself where it names none. */
    public RuleDefinition resolved(RuleDefinition rule) {
        String name = rule.delivery().sharedLayout();
        if (name == null) return rule;
        var shared = definitions
                .layout(name)
                .orElseThrow(() -> new IllegalStateException("no layout " + name))
                .definition();
        return rule.withDelivery(rule.delivery().with(shared.layout()));
    }

    /** The same of a saved rule. */
    public Current<RuleDefinition> resolved(Current<RuleDefinition> rule) {
        return new Current<>(rule.id(), rule.revision(), resolved(rule.definition()));
    }

    /** The same of many rules, for which shared layouts are read once. */
    public List<Current<RuleDefinition>> resolved(List<Current<RuleDefinition>> rules) {
        if (rules.stream().allMatch(rule -> rule.definition().delivery().sharedLayout() == null)) return rules;
        var shared = new HashMap<String, LayoutDefinition>();
        definitions
                .layouts()
                .forEach(layout -> shared.put(
                        layout.definition().name(), layout.definition().layout()));
        return rules.stream()
                .map(rule -> {
                    var delivery = rule.definition().delivery();
                    var layout = delivery.sharedLayout() == null ? null : shared.get(delivery.sharedLayout());
                    return layout == null
                            ? rule
                            : new Current<>(
                                    rule.id(),
                                    rule.revision(),
                                    rule.definition().withDelivery(delivery.with(layout)));
                })
                .toList();
    }
}
