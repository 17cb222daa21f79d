package dev.oddsentry.service.layouts;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.definitions.DefinitionStore;
import org.springframework.stereotype.Component;

/** The layouts that several rules use under a name. */
@Component
public class Layouts {
    private final DefinitionStore definitions;

    Layouts(DefinitionStore definitions) {
        this.definitions = definitions;
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
}
