package dev.oddsentry.service.authoring;

import dev.oddsentry.core.definition.CalendarDefinition;
import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RecipientListDefinition;
import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.definition.RuleDefinition.ExpectedGroups.OfQuery;
import dev.oddsentry.core.definition.SharedLayoutDefinition;
import dev.oddsentry.core.definition.ThresholdDefinition;
import dev.oddsentry.core.document.FieldPlaces;
import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.threshold.ThresholdTable;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.layouts.Layouts;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.queries.QueryChecks;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.visibility.Visibility;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Checks a document against its source and everything that is saved, before it is kept. */
@Component
class DefinitionChecks {
    private final DefinitionStore store;
    private final QueryChecks queryChecks;
    private final ThresholdStore thresholds;
    private final Schedules schedules;
    private final Layouts layouts;
    private final MailChecks mail;
    private final RecipientChecks recipients;
    private final OtherQueries others;
    private final LookAhead lookAhead;
    private final CrowdedReaders crowded;
    private final Clock clock;
    private final HiddenNames hidden;
    private final Visibility visibility;

    DefinitionChecks(
            DefinitionStore store,
            QueryChecks queryChecks,
            ThresholdStore thresholds,
            Schedules schedules,
            Layouts layouts,
            MailChecks mail,
            RecipientChecks recipients,
            OtherQueries others,
            LookAhead lookAhead,
            CrowdedReaders crowded,
            Clock clock,
            Visibility visibility,
            HiddenNames hidden) {
        this.hidden = hidden;
        this.visibility = visibility;
        this.store = store;
        this.queryChecks = queryChecks;
        this.thresholds = thresholds;
        this.schedules = schedules;
        this.layouts = layouts;
        this.mail = mail;
        this.recipients = recipients;
        this.others = others;
        this.lookAhead = lookAhead;
        this.crowded = crowded;
        this.clock = clock;
    }

    /** @param columns of a query, null for others */
    record Checked(@Nullable Columns columns, List<Problem> warnings) {}

    /** @throws InvalidDefinitionException with every problem and its place */
    Checked check(Definition definition, FieldPlaces places) {
        hidden.refuse(definition, places);
        return switch (definition) {
            case QueryDefinition query -> checkQuery(query, places);
            case RuleDefinition rule -> checkRule(rule, places);
            case ThresholdDefinition threshold -> checkThreshold(threshold, places);
            case CalendarDefinition _ -> new Checked(null, List.of());
            case RoundUpDefinition roundUp -> checkRoundUp(roundUp, places);
            case SharedLayoutDefinition shared -> checkLayout(shared, places);
            case RecipientListDefinition list ->
                unlessStopped(recipients.problems("recipients", list.recipients(), places));
        };
    }

    /** @throws InvalidDefinitionException with all problems if one of them stops the save */
    private static Checked unlessStopped(List<Problem> problems) {
        if (problems.stream().anyMatch(Problem::stopsSave)) throw new InvalidDefinitionException(problems);
        return new Checked(null, problems);
    }

    private Checked checkQuery(QueryDefinition query, FieldPlaces places) {
        var checked = queryChecks.check(query, places);
        var problems = rulesBrokenBy(
                rule -> rule.query().equals(query.name()),
                layouts::resolved,
                checked.columns(),
                thresholds.all(),
                "query",
                "sql",
                places);
        if (!problems.isEmpty()) throw new InvalidDefinitionException(problems);
        var warnings = new ArrayList<>(checked.warnings());
        query.chosenFrom().forEach((parameter, from) -> {
            // The one that offers may be saved after it, as in a folder.
            if (from.equals(query.name()) || store.query(from).isPresent()) return;
            String field = "parameters." + parameter + ".choices.from";
            warnings.add(Problem.warning(
                    "there is no query \"" + from + "\" yet, so nothing is offered for " + parameter,
                    field,
                    places.of(field)));
        });
        newHistories(query, checked.columns(), places).ifPresent(warnings::add);
        return new Checked(checked.columns(), warnings);
    }

    /** Another text may measure other things, so rules that look back at earlier checks have to learn them again. */
    private Optional<Problem> newHistories(QueryDefinition query, Columns columns, FieldPlaces places) {
        var saved = store.query(query.name());
        if (saved.isEmpty() || saved.get().definition().sql().equals(query.sql())) return Optional.empty();
        var lookBack = visibility.now().of(store.rules()).stream()
                .map(DefinitionStore.Current::definition)
                .filter(rule -> rule.query().equals(query.name()))
                .filter(rule -> !CheckedRule.check(rule, columns, thresholds.all(), null)
                        .conditions()
                        .needs()
                        .isEmpty())
                .map(RuleDefinition::name)
                .toList();
        if (lookBack.isEmpty()) return Optional.empty();
        return Optional.of(Problem.warning(
                "with another text, these rules start a new history and need time to learn what is usual: "
                        + String.join(", ", lookBack)
                        + "; if both texts measure the same, keep the earlier measurements: on the rule's page, or with odd measurements "
                        + lookBack.getFirst() + " --join",
                "sql",
                places.of("sql")));
    }

    private Checked checkThreshold(ThresholdDefinition threshold, FieldPlaces places) {
        var table =
                new ThresholdTable(threshold.name(), threshold.title(), threshold.unit(), threshold.key(), List.of());
        var problems = rulesBrokenBy(
                rule -> rule.thresholdsUsed().contains(threshold.name()),
                layouts::resolved,
                null,
                thresholds.all().with(table),
                "threshold",
                "key",
                places);
        if (!problems.isEmpty()) throw new InvalidDefinitionException(problems);
        return new Checked(null, List.of());
    }

    /** @param columns of the rules' query; null for those it was saved with */
    private List<Problem> rulesBrokenBy(
            Predicate<RuleDefinition> which,
            UnaryOperator<RuleDefinition> as,
            @Nullable Columns columns,
            Thresholds among,
            String what,
            String field,
            FieldPlaces places) {
        var problems = new ArrayList<Problem>();
        for (var each : store.rules()) {
            var rule = each.definition();
            if (!which.test(rule)) continue;
            try {
                CheckedRule.check(as.apply(rule), columns == null ? columnsOf(rule) : columns, among, null);
            } catch (InvalidDefinitionException broken) {
                broken.problems()
                        .forEach(problem -> problems.add(Problem.error(
                                (visibility.now().includes(each.id())
                                                ? "the rule " + rule.name()
                                                : "a rule that you do not see")
                                        + " uses this " + what + ": " + problem.message(),
                                field,
                                places.of(field))));
            }
        }
        return problems;
    }

    private Thresholds writable(RuleDefinition rule) {
        var saved = store.rule(rule.name()).map(kept -> kept.definition().thresholdsUsed());
        return thresholds.writable(visibility.now(), saved.orElse(Set.of()));
    }

    private Columns columnsOf(RuleDefinition rule) {
        return store.columns(store.query(rule.query()).orElseThrow());
    }

    private Checked checkRule(RuleDefinition asWritten, FieldPlaces places) {
        String named = asWritten.delivery().sharedLayout();
        if (named != null)
            others.refusePrivate(named, "delivery.layout", places).ifPresent(problem -> {
                throw new InvalidDefinitionException(List.of(problem));
            });
        if (named != null && store.layout(named).isEmpty())
            throw new InvalidDefinitionException(List.of(places.locate(
                    "delivery.layout",
                    Problem.error("there is no layout \"" + named + "\"", "", null)
                            .suggesting(Nearest.to(
                                            named,
                                            visibility
                                                    .now()
                                                    .names(Definition.Kind.LAYOUT, store.names(Definition.Kind.LAYOUT)))
                                    .orElse(null)))));
        var rule = layouts.resolved(asWritten);
        var query = store.query(rule.query());
        if (query.isEmpty())
            throw new InvalidDefinitionException(List.of(others.noQuery(rule.query(), "query", places)));
        var problems = new ArrayList<>(Parameters.problemsOf(rule, query.get().definition(), places));
        CheckedRule conditions = null;
        try {
            var checked = CheckedRule.check(rule, store.columns(query.get()), writable(rule), places);
            problems.addAll(checked.warnings());
            conditions = checked.conditions();
        } catch (InvalidDefinitionException refused) {
            problems.addAll(refused.problems());
        }
        if (rule.groups() != null && rule.groups().from() instanceof OfQuery(var name))
            problems.addAll(others.groupsProblems(rule, name, places));
        calendarProblem(rule.schedule().calendar(), places).ifPresent(problems::add);
        problems.addAll(occasionProblems(rule, places));
        problems.addAll(others.splitProblems(rule, places));
        problems.addAll(others.alsoSentProblems(rule, places));
        problems.addAll(mail.problems(rule, store.columns(query.get()), conditions, places));
        problems.addAll(roundUpProblems(rule, places));
        problems.addAll(others.copiesProblems(rule, query.get().definition(), places));
        if (problems.stream().noneMatch(Problem::stopsSave)) {
            problems.addAll(Parameters.unsettled(rule, query.get().definition(), places));
            problems.addAll(periodProblems(rule, query.get().definition(), places));
        }
        boolean clean = problems.stream().noneMatch(Problem::stopsSave);
        if (clean) crowded.warning(rule, places).ifPresent(problems::add);
        if (clean && conditions != null)
            problems.addAll(lookAhead.warnings(rule, query.get().definition(), conditions, places));
        if (problems.stream().anyMatch(Problem::stopsSave)) throw new InvalidDefinitionException(problems);
        schedules
                .runsOut(rule.schedule(), clock.instant().atZone(rule.zone()).toLocalDate())
                .ifPresent(words -> problems.add(places.locate(
                        "schedule.calendar", new Problem(Problem.Weight.WARNING, words, "", null, null))));
        return new Checked(null, problems);
    }

    /** Every rule that uses it has its columns. */
    private Checked checkLayout(SharedLayoutDefinition shared, FieldPlaces places) {
        var problems = rulesBrokenBy(
                rule -> shared.name().equals(rule.delivery().sharedLayout()),
                rule -> rule.withDelivery(rule.delivery().with(shared.layout())),
                null,
                thresholds.all(),
                "layout",
                "columns",
                places);
        if (!problems.isEmpty()) throw new InvalidDefinitionException(problems);
        return new Checked(null, List.of());
    }

    /** Its rules are there, and each is checked as one: the personal copies of one hear for themselves. */
    private Checked checkRoundUp(RoundUpDefinition roundUp, FieldPlaces places) {
        var problems = new ArrayList<Problem>();
        for (int i = 0; i < roundUp.rules().size(); i++) {
            String name = roundUp.rules().get(i);
            var rule = store.rule(name);
            String field = "rules[" + i + "]";
            if (rule.isEmpty()) problems.add(noRule(name, field, places));
            else if (rule.get().definition().copies() != null)
                problems.add(places.locate(
                        field,
                        Problem.error(
                                "the rule " + name + " has personal copies, which cannot be in a round-up", "", null)));
            else if (rule.get().definition().isPlainReport())
                problems.add(places.locate(
                        field,
                        Problem.error(
                                "the rule " + name + " is a plain report, which has no updates for a round-up",
                                "",
                                null)));
        }
        calendarProblem(roundUp.schedule().calendar(), places).ifPresent(problems::add);
        problems.addAll(recipients.problems("to", roundUp.to(), places));
        return unlessStopped(problems);
    }

    private List<Problem> roundUpProblems(RuleDefinition rule, FieldPlaces places) {
        if (rule.copies() == null && !rule.isPlainReport()) return List.of();
        String field = rule.isPlainReport() ? "memory.mode" : "copies";
        String why = rule.isPlainReport() ? " reports the updates of this rule" : " reports this rule as a whole";
        return store.roundUps().stream()
                .filter(each -> each.definition().rules().contains(rule.name()))
                .map(each -> places.locate(
                        field,
                        Problem.error(
                                visibility.now().listed(List.of(each.definition())) + why
                                        + "; remove the rule from it first",
                                "",
                                null)))
                .toList();
    }

    private Problem noRule(String name, String field, FieldPlaces places) {
        return places.locate(
                field,
                Problem.error("there is no rule \"" + name + "\"", "", null)
                        .suggesting(Nearest.to(
                                        name,
                                        visibility.now().names(Definition.Kind.RULE, store.names(Definition.Kind.RULE)))
                                .orElse(null)));
    }

    private Optional<Problem> calendarProblem(@Nullable String name, FieldPlaces places) {
        if (name == null || store.calendar(name).isPresent()) return Optional.empty();
        return Optional.of(places.locate(
                "schedule.calendar",
                Problem.error("there is no calendar \"" + name + "\"", "", null)
                        .suggesting(Nearest.to(
                                        name,
                                        visibility
                                                .now()
                                                .names(Definition.Kind.CALENDAR, store.names(Definition.Kind.CALENDAR)))
                                .orElse(null))));
    }

    /** The rules it follows are there, and so is the query that says when it is ready. */
    private List<Problem> occasionProblems(RuleDefinition rule, FieldPlaces places) {
        var problems = new ArrayList<Problem>();
        var after = rule.triggers().after();
        for (int i = 0; i < after.size(); i++) {
            String name = after.get(i).rule();
            if (store.rule(name).isPresent() || name.equals(rule.name())) continue;
            problems.add(noRule(name, "schedule.after[" + i + "].rule", places));
        }
        var ready = rule.triggers().ready();
        if (ready == null) return problems;
        String field = "schedule.ready_when.query";
        var query = store.query(ready.query());
        if (query.isEmpty()) problems.add(others.noQuery(ready.query(), field, places));
        else problems.addAll(OtherQueries.missingValues(rule, query.get().definition(), field, places));
        return problems;
    }

    /** A relative date may go by periods that the calendar does not know. */
    private List<Problem> periodProblems(RuleDefinition rule, QueryDefinition query, FieldPlaces places) {
        try {
            Parameters.writtenAt(schedules.moment(rule, clock.instant()), rule, query);
            return List.of();
        } catch (InvalidDefinitionException unknown) {
            return unknown.problems().stream()
                    .map(problem -> places.locate("parameters", Problem.error(problem.message(), "", null)))
                    .toList();
        }
    }
}
