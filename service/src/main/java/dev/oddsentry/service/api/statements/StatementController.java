package dev.oddsentry.service.api.statements;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.extracts.mail.CheckStatement;
import dev.oddsentry.extracts.mail.StatementWords;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.rules.RuleStates;
import dev.oddsentry.service.statements.CheckStatements;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** How rules were checked over a while, and whether silence meant that there was nothing to report. */
@RestController
@RequestMapping(path = "/api/statements", produces = "application/json")
class StatementController {
    private static final Duration USUAL = Duration.ofDays(7);

    private final CheckStatements statements;
    private final DefinitionStore definitions;
    private final RuleStates rules;
    private final Clock clock;

    private final UnknownNames unknown;
    private final VisibleDefinitions visible;

    StatementController(
            CheckStatements statements,
            DefinitionStore definitions,
            RuleStates rules,
            Clock clock,
            UnknownNames unknown,
            VisibleDefinitions visible) {
        this.visible = visible;
        this.unknown = unknown;
        this.statements = statements;
        this.definitions = definitions;
        this.rules = rules;
        this.clock = clock;
    }

    /**
     * @param complete whether silence meant that there was nothing to report
     * @param sentences the same in plain English, the verdict first
     */
    record StatementView(
            String rule,
            String title,
            String zone,
            boolean complete,
            List<String> sentences,
            CheckStatement.Checks checks,
            CheckStatement.Reported reported,
            CheckStatement.Unreported unreported,
            CheckStatement.Open open,
            List<CheckStatement.Gap> gaps) {
        static StatementView of(String rule, CheckStatement said) {
            return new StatementView(
                    rule,
                    said.title(),
                    said.zone().getId(),
                    said.isComplete(),
                    StatementWords.of(said, Language.EN),
                    said.checks(),
                    said.reported(),
                    said.unreported(),
                    said.open(),
                    said.gaps());
        }
    }

    /** @param to exclusive */
    record StatementList(Instant from, Instant to, List<StatementView> statements) {}

    /**
     * @param rule any number of names; all rules but drafts if left out
     * @param from seven days before {@code to} if left out
     * @param to now if left out
     */
    @GetMapping
    StatementList listStatements(
            @RequestParam(required = false) @Nullable List<String> rule,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant to) {
        Instant until = to == null ? clock.instant() : to;
        Instant since = from == null ? until.minus(USUAL) : from;
        if (!since.isBefore(until)) throw RefusedException.invalid("from: the time must be before " + until + ".");
        var asked = rule == null || rule.isEmpty()
                ? visible.rules().stream()
                        .filter(each -> rules.of(each.ruleId()) != RuleState.DRAFT)
                        .toList()
                : rule.stream().map(this::require).toList();
        return new StatementList(
                since,
                until,
                asked.stream()
                        .map(each -> StatementView.of(each.definition().name(), statements.of(each, since, until)))
                        .toList());
    }

    private Current<RuleDefinition> require(String name) {
        return visible.rule(name).orElseThrow(() -> unknown.of(Kind.RULE, name));
    }
}
