package dev.oddsentry.service.api.definitions;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.authoring.Drafts;
import dev.oddsentry.service.authoring.Saved;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.web.RefusedException;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The draft beside a rule. */
@RestController
@RequestMapping(path = "/api/rules/{name}", produces = "application/json")
class DraftController {
    private final DefinitionStore store;
    private final Drafts drafts;

    private final UnknownNames unknown;

    DraftController(DefinitionStore store, Drafts drafts, UnknownNames unknown) {
        this.unknown = unknown;
        this.store = store;
        this.drafts = drafts;
    }

    private Current<RuleDefinition> rule(String name) {
        return store.rule(name).orElseThrow(() -> unknown.of(Kind.RULE, name));
    }

    @GetMapping("/draft")
    Drafts.Draft getDraft(@PathVariable String name) {
        return drafts.of(rule(name))
                .orElseThrow(() -> RefusedException.notFound("There are no draft changes of " + name + "."));
    }

    /** Its document as YAML. */
    @GetMapping(path = "/draft.yaml", produces = "application/yaml")
    String getDraftFile(@PathVariable String name) {
        return Document.print(
                Document.read(Json.writeInOrder(getDraft(name).document()).data())
                        .definition());
    }

    /**
     * @param version the version of the draft that this one is made from; absent where there was none, 0 to take no heed
     * @param baseRevision the revision of the rule that the author has looked at; absent for the one that stands
     */
    @PutMapping(
            path = "/draft",
            consumes = {"application/yaml", "text/plain"})
    Drafts.Draft saveDraft(
            @AuthenticationPrincipal Person author,
            @PathVariable String name,
            @RequestBody String text,
            @RequestParam(required = false) @Nullable Integer version,
            @RequestParam(required = false) @Nullable Integer baseRevision) {
        return drafts.save(author, rule(name), text, version, baseRevision);
    }

    /** @param version the version of the draft that is switched to; absent or 0 for whichever there is */
    @PostMapping("/draft/apply")
    Saved applyDraft(
            @AuthenticationPrincipal Person by,
            @PathVariable String name,
            @RequestParam(defaultValue = "") String reason,
            @RequestParam(defaultValue = "false") boolean treatAsKnown,
            @RequestParam(required = false) @Nullable Integer version) {
        return drafts.switchTo(by, rule(name), reason, treatAsKnown, version);
    }

    @DeleteMapping("/draft")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void discardDraft(@AuthenticationPrincipal Person by, @PathVariable String name) {
        drafts.discard(by, rule(name));
    }
}
