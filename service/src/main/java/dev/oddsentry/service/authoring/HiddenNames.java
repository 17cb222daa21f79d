package dev.oddsentry.service.authoring;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.document.FieldPlaces;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.Uses;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.visibility.Visible;
import dev.oddsentry.service.web.RefusedException;
import java.util.ArrayList;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;

/**
 * What a document names and its author does not see is not there for them; otherwise one could read by a rule of one's own what one may not
 * read. What the saved one names already stays: it was written by somebody who saw it. Thresholds are
 * refused where they stand in a condition.
 */
@Component
class HiddenNames {
    private final DefinitionStore definitions;
    private final Visibility visibility;

    HiddenNames(DefinitionStore definitions, Visibility visibility) {
        this.definitions = definitions;
        this.visibility = visibility;
    }

    /**
     * @throws InvalidDefinitionException in the words for what is not there
     * @throws RefusedException if its name or id is that of something hidden
     */
    void refuse(Definition written, FieldPlaces places) {
        var visible = visibility.now();
        refuseTaken(written, visible);
        var saved = definitions.current(written.kind(), written.name());
        var problems = new ArrayList<Problem>();
        for (var kind : Kind.values())
            for (String name : Uses.names(written, kind))
                if (kind != Kind.THRESHOLD && !visible.includes(kind, name) && !names(saved, kind, name))
                    problems.add(problem(kind, name, visible, places));
        if (!problems.isEmpty()) throw new InvalidDefinitionException(problems);
    }

    /** A trial under the name or the id of something hidden would be held against what that remembers. */
    private void refuseTaken(Definition written, Visible visible) {
        boolean seen = visible.includes(written.kind(), written.name())
                && (written.id() == null || visible.includes(UUID.fromString(written.id())));
        if (!seen) throw RefusedException.conflict("The name " + written.name() + " is taken.");
    }

    private static boolean names(Optional<Definition> saved, Kind kind, String name) {
        return saved.map(definition -> Uses.names(definition, kind).contains(name))
                .orElse(false);
    }

    private Problem problem(Kind kind, String name, Visible visible, FieldPlaces places) {
        return places.locate(
                field(kind),
                Problem.error("there is no " + words(kind) + " \"" + name + "\"", "", null)
                        .suggesting(Nearest.to(name, visible.names(kind, definitions.names(kind)))
                                .orElse(null)));
    }

    /** As a document refers to it. */
    private static String words(Kind kind) {
        return kind == Kind.RECIPIENT_LIST ? MailAddress.Target.LIST.code() : kind.words();
    }

    private static String field(Kind kind) {
        return switch (kind) {
            case QUERY -> "query";
            case CALENDAR -> "schedule.calendar";
            case LAYOUT -> "delivery.layout";
            case RECIPIENT_LIST -> "delivery.to";
            case RULE -> "rules";
            case THRESHOLD, ROUND_UP -> "name";
        };
    }
}
