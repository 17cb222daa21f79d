package dev.oddsentry.service.api.findings;

import static dev.oddsentry.service.db.generated.Tables.FINDING;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.memory.Marks.Kind;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.handling.FindingHandling;
import dev.oddsentry.service.memory.FindingKeys;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.rules.RuleNames;
import dev.oddsentry.service.web.RefusedException;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Marks of people on findings, which are named by their key or by their number. */
@RestController
@RequestMapping(path = "/api/rules/{name}/handling", produces = "application/json")
class HandlingController {
    private final RuleNames names;
    private final DefinitionStore definitions;
    private final FindingKeys keys;
    private final FindingHandling marking;
    private final DSLContext db;

    HandlingController(
            RuleNames names, DefinitionStore definitions, FindingKeys keys, FindingHandling marking, DSLContext db) {
        this.names = names;
        this.definitions = definitions;
        this.keys = keys;
        this.marking = marking;
        this.db = db;
    }

    /**
     * @param finding its number; null where the key is given
     * @param copy whose personal copy found the key; null for the one that has, and where the rule has none
     * @param until a date, a local date and time in the rule's zone, or an instant; null for none
     * @param withdraw true to end the mark of that kind
     */
    record HandlingBody(
            @Nullable Long finding,
            @Nullable List<String> key,
            @Nullable String copy,
            @NotNull Kind kind,
            @Nullable @Size(max = 2000) String note,
            @Nullable String until,
            @Nullable Boolean withdraw) {}

    record HandlingResult(long finding, List<FindingHandling.HandlingEntry> handling) {}

    @PostMapping
    HandlingResult handleFinding(
            @AuthenticationPrincipal Person by, @PathVariable String name, @Valid @RequestBody HandlingBody body) {
        var rule = definitions.rule(names.idOf(name)).orElseThrow();
        long finding = body.finding() != null
                ? body.finding()
                : numberOf(rule, body.key() == null ? List.of() : body.key(), body.copy());
        if (Boolean.TRUE.equals(body.withdraw())) marking.withdraw(by, rule.ruleId(), finding, body.kind());
        else {
            var until = body.until() == null
                    ? null
                    : HandlingEnd.of(body.until(), rule.definition().zone());
            marking.mark(
                    by,
                    rule.ruleId(),
                    finding,
                    new FindingHandling.Ask(body.kind(), body.note() == null ? "" : body.note(), until));
        }
        return new HandlingResult(finding, marking.of(List.of(finding)).getOrDefault(finding, List.of()));
    }

    /**
     * @param finding its number; null where the key is given
     * @param copy as for handling
     */
    record NoteBody(
            @Nullable Long finding,
            @Nullable List<String> key,
            @Nullable String copy,
            @NotNull @Size(max = 2000) String note) {}

    @PostMapping("/notes")
    HandlingResult noteFinding(
            @AuthenticationPrincipal Person by, @PathVariable String name, @Valid @RequestBody NoteBody body) {
        var rule = definitions.rule(names.idOf(name)).orElseThrow();
        long finding = body.finding() != null
                ? body.finding()
                : numberOf(rule, body.key() == null ? List.of() : body.key(), body.copy());
        marking.note(by, rule.ruleId(), finding, body.note());
        return new HandlingResult(finding, marking.of(List.of(finding)).getOrDefault(finding, List.of()));
    }

    private long numberOf(Current<RuleDefinition> rule, List<String> texts, @Nullable String copy) {
        var identity = keys.read(rule, texts, copy);
        return db.select(FINDING.ID)
                .from(FINDING)
                .where(
                        FINDING.RULE_ID.eq(rule.ruleId()),
                        FINDING.KEY.eq(identity.key().asUuid()))
                .fetchOptional(FINDING.ID)
                .orElseThrow(() -> RefusedException.notFound("The rule has no finding \"" + String.join(", ", texts)
                        + "\". odd explain " + rule.definition().name() + " --key … says why."));
    }
}
