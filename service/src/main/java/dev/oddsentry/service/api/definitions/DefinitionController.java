package dev.oddsentry.service.api.definitions;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.authoring.Kinds;
import dev.oddsentry.service.authoring.Saved;
import dev.oddsentry.service.authoring.Saving;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
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

    private final UnknownNames unknown;
    private final VisibleDefinitions visible;

    DefinitionController(Saving saving, DefinitionStore store, UnknownNames unknown, VisibleDefinitions visible) {
        this.visible = visible;
        this.unknown = unknown;
        this.saving = saving;
        this.store = store;
    }

    /** @param revision the revision that the document was made from: another that was saved meanwhile is not overwritten */
    @PutMapping(
            consumes = {"application/yaml", "text/plain"},
            produces = "application/json")
    Saved saveDefinition(
            @AuthenticationPrincipal Person author,
            @RequestBody String text,
            @RequestParam(defaultValue = "") String reason,
            @RequestParam(defaultValue = "false") boolean treatAsKnown,
            @RequestParam(required = false) @Nullable Integer revision) {
        return saving.save(author, text, reason, treatAsKnown, revision);
    }

    /**
     * @param title the name again where it has none of its own
     * @param rules the rules that use it, by name
     */
    record DefinitionSummary(String kind, String name, String title, int revision, List<String> rules) {}

    /** Every definition that one may see. */
    @GetMapping(produces = "application/json")
    List<DefinitionSummary> listDefinitions() {
        var users = users();
        return visible.everything().stream()
                .map(each -> new DefinitionSummary(
                        each.definition().kind().code(),
                        each.definition().name(),
                        each.definition().title(),
                        each.revision(),
                        users.getOrDefault(each.definition().kind(), Map.of())
                                .getOrDefault(each.definition().name(), List.of())))
                .toList();
    }

    /** The rules that use what is of a kind and has a name, by name; what a rule uses is read from it once. */
    private Map<Kind, Map<String, List<String>>> users() {
        var users = new EnumMap<Kind, Map<String, List<String>>>(Kind.class);
        var rules = visible.rules().stream()
                .map(each -> each.definition())
                .sorted(Comparator.comparing(RuleDefinition::name))
                .toList();
        for (var kind : Kind.values())
            for (var rule : rules)
                for (String used : rule.names(kind))
                    users.computeIfAbsent(kind, _ -> new HashMap<>())
                            .computeIfAbsent(used, _ -> new ArrayList<>())
                            .add(rule.name());
        return users;
    }

    /** @param kind {@code query}, {@code rule}, {@code threshold}, {@code calendar}, {@code layout}, {@code recipient-list} or {@code round-up} */
    @GetMapping(path = "/{kind}/{name}", produces = "application/yaml")
    String getDefinitionFile(@AuthenticationPrincipal Person by, @PathVariable String kind, @PathVariable String name) {
        return Document.print(require(by, kind, name));
    }

    /** The same as JSON, for an editor; what is sent back may be JSON too, since that is YAML. */
    @GetMapping(path = "/{kind}/{name}.json", produces = "application/json")
    Map<String, Object> getDefinition(
            @AuthenticationPrincipal Person by, @PathVariable String kind, @PathVariable String name) {
        return Document.tree(require(by, kind, name));
    }

    private Definition require(Person by, String kind, String name) {
        return store.current(Kinds.of(kind), name).orElseThrow(() -> unknown.of(Kinds.of(kind), name));
    }
}
