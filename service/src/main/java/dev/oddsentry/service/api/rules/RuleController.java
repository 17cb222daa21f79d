package dev.oddsentry.service.api.rules;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.memory.PendingEffect.ReportChoice;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.rules.RuleNames;
import dev.oddsentry.service.rules.RulePasswords;
import dev.oddsentry.service.rules.RuleStates;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping(path = "/api/rules", produces = "application/json")
class RuleController {
    /** What the first check of a rule that becomes active reports. */
    enum ReportOnActivation {
        OPEN(ReportChoice.OPEN),
        NEW(ReportChoice.UPDATES),
        NOTHING(ReportChoice.TREAT_AS_KNOWN);

        private final ReportChoice choice;

        ReportOnActivation(ReportChoice choice) {
            this.choice = choice;
        }
    }

    private final RuleViews views;
    private final RuleStates states;
    private final RuleNames names;
    private final DefinitionStore definitions;
    private final RulePasswords passwords;

    RuleController(
            RuleViews views, RuleStates states, RuleNames names, DefinitionStore definitions, RulePasswords passwords) {
        this.passwords = passwords;
        this.views = views;
        this.states = states;
        this.names = names;
        this.definitions = definitions;
    }

    @GetMapping
    List<RuleViews.RuleSummary> listRules() {
        return views.all();
    }

    @GetMapping("/{name}")
    RuleViews.RulePage getRule(@PathVariable String name) {
        names.idOf(name);
        return views.page(name);
    }

    @PostMapping("/{name}/activate")
    RuleViews.RulePage activateRule(
            @AuthenticationPrincipal Person by,
            @PathVariable String name,
            @RequestParam(required = false) @Nullable ReportOnActivation report) {
        var rule = require(name);
        states.activate(by, rule.ruleId(), rule.definition(), report == null ? ReportChoice.NONE : report.choice);
        return views.page(name);
    }

    @PostMapping("/{name}/pause")
    RuleViews.RulePage pauseRule(@AuthenticationPrincipal Person by, @PathVariable String name) {
        var rule = require(name);
        states.pause(by, rule.ruleId(), rule.definition());
        return views.page(name);
    }

    record FilePasswordBody(
            @NotBlank @Size(min = 8, max = 200) String password) {}

    /** Keeps the password with which the rule's files are encrypted; it is never given out again. */
    @PutMapping(path = "/{name}/password", consumes = "application/json")
    void setFilePassword(
            @AuthenticationPrincipal Person by, @PathVariable String name, @RequestBody @Valid FilePasswordBody body) {
        var rule = require(name);
        passwords.set(by, rule.ruleId(), rule.definition().name(), body.password());
    }

    private Current<RuleDefinition> require(String name) {
        return definitions.rule(names.idOf(name)).orElseThrow();
    }
}
