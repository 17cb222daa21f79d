package dev.oddsentry.service.visibility;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.web.RefusedException;
import org.springframework.stereotype.Component;

/** The refusal of a name that is unknown to the person who asks: in the same words whether there is nothing of that name, or it is hidden. */
@Component
public class UnknownNames {
    private final DefinitionStore definitions;
    private final Visibility visibility;

    UnknownNames(DefinitionStore definitions, Visibility visibility) {
        this.definitions = definitions;
        this.visibility = visibility;
    }

    /** With the nearest name that the person sees. */
    public RefusedException of(Kind kind, String name) {
        String near = Nearest.to(name, visibility.now().names(kind, definitions.names(kind)))
                .map(nearest -> " Did you mean \"" + nearest + "\"?")
                .orElse("");
        return RefusedException.notFound("There is no " + kind.words() + " \"" + name + "\"." + near);
    }
}
