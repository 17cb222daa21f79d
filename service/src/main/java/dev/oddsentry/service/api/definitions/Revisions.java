package dev.oddsentry.service.api.definitions;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION_REVISION;
import static dev.oddsentry.service.db.generated.Tables.PERSON;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.service.authoring.Kinds;
import dev.oddsentry.service.authoring.Saved;
import dev.oddsentry.service.authoring.Saving;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.web.RefusedException;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What was saved of a definition, and the way back to it. */
@RestController
@RequestMapping(path = "/api/definitions/{kind}/{name}/revisions")
class Revisions {
    private static final int MOST_LISTED = 200;

    private final DefinitionStore store;
    private final Saving saving;
    private final DSLContext db;

    private final UnknownNames unknown;

    Revisions(DefinitionStore store, Saving saving, DSLContext db, UnknownNames unknown) {
        this.unknown = unknown;
        this.store = store;
        this.saving = saving;
        this.db = db;
    }

    record RevisionView(
            int revision, String reason, @Nullable String author, Instant at) {}

    /** @param next where the next page begins; null on the last one */
    record RevisionList(
            List<RevisionView> revisions, @Nullable String next) {}

    /**
     * Newest first.
     *
     * @param after the value of {@code next} of the page before
     */
    @GetMapping(produces = "application/json")
    RevisionList listRevisions(
            @AuthenticationPrincipal Person by,
            @PathVariable String kind,
            @PathVariable String name,
            @RequestParam(required = false) @Nullable String after) {
        var page = page(id(by, kind, name), after == null ? Integer.MAX_VALUE : revision(after));
        return new RevisionList(
                page,
                page.size() < MOST_LISTED ? null : String.valueOf(page.getLast().revision()));
    }

    private static int revision(String after) {
        if (after.matches("[1-9]\\d{0,8}")) return Integer.parseInt(after);
        throw RefusedException.notAPosition(after);
    }

    private List<RevisionView> page(UUID id, int before) {
        return db.select(DEFINITION_REVISION.REVISION, DEFINITION_REVISION.REASON, PERSON.NAME, DEFINITION_REVISION.AT)
                .from(DEFINITION_REVISION)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(DEFINITION_REVISION.AUTHOR_ID))
                .where(DEFINITION_REVISION.DEFINITION_ID.eq(id), DEFINITION_REVISION.REVISION.lt(before))
                .orderBy(DEFINITION_REVISION.REVISION.desc())
                .limit(MOST_LISTED)
                .fetch(row -> new RevisionView(row.value1(), row.value2(), row.value3(), row.value4()));
    }

    @GetMapping(path = "/{revision}", produces = "application/yaml")
    String getRevision(
            @AuthenticationPrincipal Person by,
            @PathVariable String kind,
            @PathVariable String name,
            @PathVariable int revision) {
        return Document.print(definition(id(by, kind, name), revision));
    }

    /** Saves that revision's document once more, as the newest. */
    @PostMapping(path = "/{revision}/restore", produces = "application/json")
    Saved restoreRevision(
            @AuthenticationPrincipal Person by,
            @PathVariable String kind,
            @PathVariable String name,
            @PathVariable int revision,
            @RequestParam(defaultValue = "") String reason,
            @RequestParam(defaultValue = "false") boolean treatAsKnown) {
        String why = reason.isBlank() ? "restore revision " + revision : reason;
        return saving.save(by, getRevision(by, kind, name, revision), why, treatAsKnown, null);
    }

    private UUID id(Person by, String kind, String name) {
        Definition.Kind of = Kinds.of(kind);
        return store.current(of, name).flatMap(_ -> store.idOf(of, name)).orElseThrow(() -> unknown.of(of, name));
    }

    private Definition definition(UUID id, int revision) {
        return store.revision(id, revision)
                .orElseThrow(() -> RefusedException.notFound("There is no revision " + revision + " of it."));
    }
}
