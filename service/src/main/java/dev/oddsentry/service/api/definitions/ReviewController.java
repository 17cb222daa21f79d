package dev.oddsentry.service.api.definitions;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.EditClass;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.service.authoring.CheckedDrafts;
import dev.oddsentry.service.authoring.Saving;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.web.RefusedException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** What a document would be if it were saved now: whether it could be, how it would be written, and what it would do. Saves nothing. */
@RestController
class ReviewController {
    private final CheckedDrafts drafts;
    private final Visibility visibility;
    private final DefinitionStore store;

    ReviewController(CheckedDrafts drafts, DefinitionStore store, Visibility visibility) {
        this.visibility = visibility;
        this.drafts = drafts;
        this.store = store;
    }

    /**
     * @param text the document as it would be written; null where it cannot be read at all
     * @param before the one that is saved; null where none is
     * @param revision of the one that is saved; 0 where none is
     * @param effect on what rules remember; null where it cannot be read, or nothing is saved
     * @param added who would be named and is not now: they take what is there as known
     * @param problems errors, for which a save would be refused, and warnings
     */
    record Review(
            @Nullable String kind,
            @Nullable String name,
            @Nullable String text,
            @Nullable String before,
            int revision,
            @Nullable EditClass effect,
            List<String> added,
            List<Problem> problems) {}

    @PostMapping(
            path = "/api/review",
            consumes = {"application/yaml", "text/plain"},
            produces = "application/json")
    Review reviewDefinition(@AuthenticationPrincipal Person by, @RequestBody String written) {
        Definition definition;
        try {
            definition = Document.read(written).definition();
        } catch (InvalidDefinitionException unreadable) {
            return new Review(null, null, null, null, 0, null, List.of(), unreadable.problems());
        }
        var saved = saved(by, definition);
        var problems = new ArrayList<>(drafts.problems(written));
        return new Review(
                definition.kind().code(),
                definition.name(),
                Document.print(definition),
                saved.map(Document::print).orElse(null),
                saved.isEmpty() ? 0 : revision(definition),
                saved.map(before -> effect(before, definition)).orElse(null),
                saved.map(before -> Saving.added(before, definition)).orElse(List.of()),
                problems);
    }

    /** By its id where it has one, so that a document with another name is held against what it renames. */
    private Optional<Definition> saved(Person by, Definition definition) {
        var found = store.current(definition.kind(), name(definition));
        if (found.isPresent() && !visibility.now().includes(definition.kind(), name(definition)))
            throw RefusedException.conflict("The name " + definition.name() + " is taken.");
        return found;
    }

    private String name(Definition definition) {
        if (definition.id() == null) return definition.name();
        return store.nameOf(UUID.fromString(definition.id())).orElse(definition.name());
    }

    private int revision(Definition definition) {
        return store.revisionOf(definition.kind(), name(definition));
    }

    private static EditClass effect(Definition before, Definition after) {
        if (before instanceof RuleDefinition was && after instanceof RuleDefinition is) return EditClass.of(was, is);
        if (before instanceof QueryDefinition was && after instanceof QueryDefinition is) return EditClass.of(was, is);
        return EditClass.NO_EFFECT;
    }
}
