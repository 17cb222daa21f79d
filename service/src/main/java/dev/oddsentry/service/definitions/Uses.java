package dev.oddsentry.service.definitions;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** Which definitions name which others: a rule its query, a round-up its rules, a query those from which its parameters are chosen. */
@Component
public class Uses {
    private final DefinitionStore definitions;

    Uses(DefinitionStore definitions) {
        this.definitions = definitions;
    }

    /** What a definition names of a kind. */
    public static Set<String> names(Definition definition, Kind kind) {
        return switch (definition) {
            case RuleDefinition rule -> rule.names(kind);
            case RoundUpDefinition roundUp -> roundUp.names(kind);
            case QueryDefinition query ->
                kind == Kind.QUERY ? Set.copyOf(query.chosenFrom().values()) : Set.of();
            default -> Set.of();
        };
    }

    /** What is in use and names it. */
    public List<Definition> of(Kind kind, String name) {
        return definitions.everything().stream()
                .map(DefinitionStore.Current::definition)
                .filter(user -> isOther(user, kind, name) && names(user, kind).contains(name))
                .toList();
    }

    /** What names it, in use or retired. */
    public List<Definition> everOf(Kind kind, String name) {
        return Stream.of(Kind.QUERY, Kind.RULE, Kind.ROUND_UP)
                .flatMap(users -> definitions.ever(users).stream())
                .map(DefinitionStore.Current::definition)
                .filter(user -> isOther(user, kind, name) && names(user, kind).contains(name))
                .toList();
    }

    private static boolean isOther(Definition user, Kind kind, String name) {
        return user.kind() != kind || !user.name().equals(name);
    }
}
