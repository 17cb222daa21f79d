package dev.oddsentry.service.rules;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.web.RefusedException;
import org.springframework.stereotype.Component;

/** Rules by the names that people and addresses use. */
@Component
public class RuleNames {
    private final DefinitionStore definitions;
    private final Visibility visibility;
    private final UnknownNames unknown;

    RuleNames(DefinitionStore definitions, Visibility visibility, UnknownNames unknown) {
        this.definitions = definitions;
        this.visibility = visibility;
        this.unknown = unknown;
    }

    /** @throws RefusedException if there is none that the person who asks sees, with the nearest name */
    public RuleId idOf(String name) {
        return definitions
                .idOf(Kind.RULE, name)
                .filter(visibility.now()::includes)
                .map(RuleId::new)
                .orElseThrow(() -> unknown.of(Kind.RULE, name));
    }
}
