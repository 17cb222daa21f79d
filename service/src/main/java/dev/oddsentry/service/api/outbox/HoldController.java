package dev.oddsentry.service.api.outbox;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.service.access.Access;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.outbox.Holds;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.rules.RuleNames;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.web.RefusedException;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Outgoing mail that is held: for everything, a source or a rule. */
@RestController
@RequestMapping(path = "/api/holds", produces = "application/json")
class HoldController {
    private final Holds holds;
    private final RuleNames rules;
    private final Sources sources;
    private final DefinitionStore definitions;
    private final Access access;
    private final Visibility visibility;

    HoldController(
            Holds holds,
            RuleNames rules,
            Sources sources,
            DefinitionStore definitions,
            Access access,
            Visibility visibility) {
        this.visibility = visibility;
        this.definitions = definitions;
        this.access = access;
        this.holds = holds;
        this.rules = rules;
        this.sources = sources;
    }

    /** @param source null, as is the rule, for all mail */
    record HoldBody(
            @Nullable String source,
            @Nullable String rule,
            @NotBlank String reason) {}

    record EndedHold(int messages) {}

    @GetMapping
    List<Holds.Hold> listHolds() {
        return standing();
    }

    private List<Holds.Hold> standing() {
        var visible = visibility.now();
        return holds.standing().stream()
                .filter(hold -> hold.rule() == null || visible.includes(Kind.RULE, hold.rule()))
                .toList();
    }

    @PostMapping
    List<Holds.Hold> holdMail(@AuthenticationPrincipal Person by, @Valid @RequestBody HoldBody body) {
        if (body.source() != null && body.rule() != null)
            throw RefusedException.invalid("Hold the mail of a source, or of a rule, or all of it.");
        if (body.source() != null) sources.require(body.source());
        RuleId rule = body.rule() == null ? null : rules.idOf(body.rule());
        if (rule != null)
            access.requireWrite(by, definitions.rule(rule).orElseThrow().definition());
        holds.hold(by, body.source(), rule, body.reason());
        return standing();
    }

    /** @param discard whether what waits is stopped, rather than sent */
    @PostMapping("/{id}/end")
    EndedHold endHold(
            @AuthenticationPrincipal Person by,
            @PathVariable long id,
            @RequestParam(defaultValue = "false") boolean discard) {
        return new EndedHold(holds.end(by, id, discard));
    }
}
