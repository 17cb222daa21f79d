package dev.oddsentry.service.api.triggers;

import static dev.oddsentry.service.db.generated.Tables.RULE_EVENT;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.triggers.Triggers;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.web.RefusedException;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Outside events, such as the end of a nightly load: other programs report them, and each begins a check of the rules that listen. */
@RestController
@RequestMapping(path = "/api/events", produces = "application/json")
class EventController {
    private final Triggers triggers;
    private final DefinitionStore definitions;
    private final Audit audit;
    private final DSLContext db;
    private final Clock clock;
    private final Visibility visibility;

    EventController(
            Triggers triggers,
            DefinitionStore definitions,
            Audit audit,
            DSLContext db,
            Clock clock,
            Visibility visibility) {
        this.visibility = visibility;
        this.triggers = triggers;
        this.definitions = definitions;
        this.audit = audit;
        this.db = db;
        this.clock = clock;
    }

    /** @param values for parameters of the rules' queries, by name */
    record EventBody(@Nullable Map<String, String> values) {}

    /**
     * @param slot what the checks stand for
     * @param rules the active rules of which it begins a check
     */
    record EventReceipt(String event, Instant slot, List<String> rules) {}

    @GetMapping
    List<String> listEvents() {
        return triggers.events(visibility.now().rules(RULE_EVENT.RULE_ID));
    }

    @PostMapping("/{event}")
    @Transactional
    public EventReceipt triggerEvent(
            @AuthenticationPrincipal Person by,
            @PathVariable String event,
            @RequestBody(required = false) @Nullable EventBody arrival,
            @RequestHeader(name = "Idempotency-Key", required = false) @Size(max = 200) @Nullable String requestKey) {
        refuseUnknown(event);
        Map<String, String> values = arrival == null || arrival.values() == null ? Map.of() : arrival.values();
        var listeners = triggers.listeners(event).stream()
                .flatMap(id -> definitions.rule(id).stream())
                .toList();
        var given = valuesByRule(values, listeners);
        Instant now = clock.instant();
        listeners.forEach(rule ->
                triggers.arrive(rule.ruleId(), now, event, given.getOrDefault(rule.ruleId(), Map.of()), requestKey));
        audit.record(
                db,
                by.id(),
                AuditAct.SEND_EVENT,
                event,
                values.isEmpty() ? null : "with " + String.join(", ", values.keySet()));
        return new EventReceipt(
                event,
                now,
                visibility.now().of(listeners).stream()
                        .map(rule -> rule.definition().name())
                        .toList());
    }

    private void refuseUnknown(String event) {
        var known = triggers.events(visibility.now().rules(RULE_EVENT.RULE_ID));
        if (known.contains(event)) return;
        throw RefusedException.notFound("No rule listens to an event \"" + event + "\"."
                + Nearest.to(event, known)
                        .map(near -> " Did you mean \"" + near + "\"?")
                        .orElse(""));
    }

    /** Each rule takes the values that its query has parameters for; a value for none of them is a slip. */
    private Map<RuleId, Map<String, String>> valuesByRule(
            Map<String, String> values, List<DefinitionStore.Current<RuleDefinition>> listeners) {
        var unused = new TreeSet<>(values.keySet());
        var known = new TreeSet<String>();
        var given = new HashMap<RuleId, Map<String, String>>();
        for (var rule : listeners) {
            var query =
                    definitions.query(rule.definition().query()).orElseThrow().definition();
            var taken = new HashMap<String, String>();
            query.parameters().forEach((name, declared) -> {
                known.add(name);
                String value = values.get(name);
                if (value == null) return;
                try {
                    declared.check(value);
                } catch (InvalidDefinitionException refused) {
                    throw RefusedException.invalid("The rule "
                            + rule.definition().name() + " takes " + name + ": " + refused.getMessage() + ".");
                }
                taken.put(name, value);
            });
            unused.removeAll(taken.keySet());
            given.put(rule.ruleId(), taken);
        }
        if (!listeners.isEmpty() && !unused.isEmpty())
            throw RefusedException.invalid("No rule that listens has a parameter " + String.join(", ", unused)
                    + (known.isEmpty() ? "" : "; they have " + String.join(", ", new ArrayList<>(known))) + ".");
        return given;
    }
}
