package dev.oddsentry.service.visibility;

import dev.oddsentry.core.definition.CalendarDefinition;
import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.definition.ThresholdDefinition;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** The lists of {@link DefinitionStore} as the person who asks sees them; for pages and answers, not for what the service does by itself. */
@Component
public class VisibleDefinitions {
    private final DefinitionStore definitions;
    private final Visibility visibility;

    VisibleDefinitions(DefinitionStore definitions, Visibility visibility) {
        this.definitions = definitions;
        this.visibility = visibility;
    }

    public List<Current<RuleDefinition>> rules() {
        return visibility.now().of(definitions.rules());
    }

    public List<Current<RuleDefinition>> rulesEver() {
        return visibility.now().of(definitions.rulesEver());
    }

    public Optional<Current<RuleDefinition>> rule(String name) {
        return definitions.rule(name).filter(rule -> visibility.now().includes(rule.id()));
    }

    public List<Current<QueryDefinition>> queries() {
        return visibility.now().of(definitions.queries());
    }

    public Optional<Current<QueryDefinition>> query(String name) {
        return definitions.query(name).filter(query -> visibility.now().includes(query.id()));
    }

    public List<Current<ThresholdDefinition>> thresholds() {
        return visibility.now().of(definitions.thresholds());
    }

    public List<Current<CalendarDefinition>> calendars() {
        return visibility.now().of(definitions.calendars());
    }

    public List<Current<RoundUpDefinition>> roundUps() {
        return visibility.now().of(definitions.roundUps());
    }

    public List<Current<Definition>> everything() {
        return visibility.now().of(definitions.everything());
    }
}
