package dev.oddsentry.service.definitions;

import dev.oddsentry.core.definition.Document;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Documents in and out, as YAML. */
@RestController
@RequestMapping("/api/definitions")
class DefinitionController {
    private final Saving saving;
    private final DefinitionStore store;

    DefinitionController(Saving saving, DefinitionStore store) {
        this.saving = saving;
        this.store = store;
    }

    /** @param seen the revision that the document was made from: another that was saved meanwhile is not overwritten */
    @PutMapping(
            consumes = {"application/yaml", "text/plain"},
            produces = "application/json")
    Saved save(
            @AuthenticationPrincipal Person author,
            @RequestBody String text,
            @RequestParam(defaultValue = "") String remark,
            @RequestParam(defaultValue = "false") boolean asKnown,
            @RequestParam(required = false) @Nullable Integer seen) {
        return saving.save(author, text, remark, asKnown, seen);
    }

    @GetMapping(path = "/rule/{name}", produces = "application/yaml")
    String rule(@PathVariable String name) {
        return Document.print(store.rule(name)
                .orElseThrow(() -> RefusedException.notFound("There is no rule \"" + name + "\"."))
                .definition());
    }

    /** The same as JSON, for an editor; what is sent back may be JSON too, since that is YAML. */
    @GetMapping(path = "/rule/{name}.json", produces = "application/json")
    Map<String, Object> ruleAsJson(@PathVariable String name) {
        return Document.tree(store.rule(name)
                .orElseThrow(() -> RefusedException.notFound("There is no rule \"" + name + "\"."))
                .definition());
    }

    @GetMapping(path = "/query/{name}", produces = "application/yaml")
    String query(@PathVariable String name) {
        return Document.print(store.query(name)
                .orElseThrow(() -> RefusedException.notFound("There is no query \"" + name + "\"."))
                .definition());
    }

    @GetMapping(path = "/calendar/{name}", produces = "application/yaml")
    String calendar(@PathVariable String name) {
        return Document.print(store.calendar(name)
                .orElseThrow(() -> RefusedException.notFound("There is no calendar \"" + name + "\"."))
                .definition());
    }

    @GetMapping(path = "/round-up/{name}", produces = "application/yaml")
    String roundUp(@PathVariable String name) {
        return Document.print(store.roundUp(name)
                .orElseThrow(() -> RefusedException.notFound("There is no round-up \"" + name + "\"."))
                .definition());
    }

    @GetMapping(path = "/threshold/{name}", produces = "application/yaml")
    String threshold(@PathVariable String name) {
        return Document.print(store.threshold(name)
                .orElseThrow(() -> RefusedException.notFound("There is no threshold \"" + name + "\"."))
                .definition());
    }
}
