package dev.oddsentry.service.reporting;

import dev.oddsentry.core.condition.FireWhen;
import dev.oddsentry.core.condition.RowFailureException;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.FirstCheck;
import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.memory.ReportPolicy;
import dev.oddsentry.core.memory.ReportPolicy.Candidate;
import dev.oddsentry.core.memory.ReportPolicy.Choice;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.evaluation.EvaluationInput;
import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.memory.Scope;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Third step of a check: chooses, from all updates, what each audience is sent. */
@Component
public class ReportPlanner {
    private final MemoryStore memory;

    ReportPlanner(MemoryStore memory) {
        this.memory = memory;
    }

    /** The same for the audiences that the memory knows. */
    public ReportPlan choose(Evaluation evaluation, Scope scope) {
        return choose(evaluation, new StoredAudiences(memory, scope));
    }

    /** What a check reports to these audiences, without the messages. */
    public ReportPlan choose(Evaluation evaluation, Audiences audiences) {
        return choose(evaluation, audiences, pending(evaluation.input(), audiences));
    }

    /** The same as if something else had been done since the check before. */
    public ReportPlan choose(Evaluation evaluation, Audiences audiences, PendingEffect pending) {
        return choose(evaluation, audiences, pending, false);
    }

    /** All open findings, for a person who asks for them, whether or not the rule would fire or has reached its hourly limit. */
    public ReportPlan everythingOpen(Evaluation evaluation, Audiences audiences) {
        return choose(evaluation, audiences, PendingEffect.of(PendingEffect.ReportChoice.OPEN), true);
    }

    private ReportPlan choose(Evaluation evaluation, Audiences audiences, PendingEffect pending, boolean asked) {
        var input = evaluation.input();
        if (input.rule().isPlainReport()) return rows(evaluation, audiences, asked);
        var habits = input.rule().memory();
        var core = new ReportPolicy(habits.report(), habits.confirmAfter(), habits.remindEvery());
        var candidates = UpdateCandidates.of(evaluation, audiences, pending);
        var choices = new LinkedHashMap<AudienceKey, Choice<ReportPlan.Subject>>();
        candidates.forEach((audience, standings) ->
                choices.put(audience, core.choose(standings.list(), input.moment(), input.tick(), pending)));
        boolean full = habits.mode() == RuleDefinition.Mode.FULL || pending.reportsOpen();
        if (!asked && !fires(evaluation, choices.values())) choices.replaceAll((_, choice) -> choice.notFired());
        else if (full) inFull(core, choices, evaluation, audiences.marks());
        if (!asked && !pending.reportsOpen()) waitForSeverity(choices, input.rule());
        if (!asked) guardAgainstFlood(choices, evaluation.input(), audiences);
        var order = order(evaluation, choices.values());
        var parts = new ArrayList<ReportPlan.Part>();
        choices.forEach((audience, choice) -> {
            var standings = candidates.get(audience);
            parts.add(
                    standings == null
                            ? ReportPlan.Part.of(audience, choice, order, false, 0)
                            : ReportPlan.Part.of(
                                    audience, choice, order, standings.takesOpened(), standings.openedMore()));
        });
        return new ReportPlan(parts, List.of(), pending);
    }

    /** Updates that are not worth a message of their own wait for one that is sent. */
    private static void waitForSeverity(Map<AudienceKey, Choice<ReportPlan.Subject>> choices, RuleDefinition rule) {
        Severity from = rule.delivery().options().sendFrom();
        if (from == null) return;
        choices.replaceAll((_, choice) ->
                choice.updates().stream().anyMatch(each -> each.severity().compareTo(from) >= 0)
                        ? choice
                        : choice.notFired());
    }

    /** All rows, each time: a plain report has no updates to choose from. */
    private static ReportPlan rows(Evaluation evaluation, Audiences audiences, boolean asked) {
        var choices = new LinkedHashMap<AudienceKey, Choice<ReportPlan.Subject>>();
        UpdateCandidates.open(evaluation, Map.of()).forEach((audience, rows) -> choices.put(audience, inFull(rows)));
        if (!asked && !fires(evaluation, choices.values())) return ReportPlan.NOTHING;
        if (!asked) guardAgainstFlood(choices, evaluation.input(), audiences);
        var order = order(evaluation, choices.values());
        var parts = choices.entrySet().stream()
                .map(each -> ReportPlan.Part.of(each.getKey(), each.getValue(), order, false, 0))
                .toList();
        return new ReportPlan(parts, List.of(), PendingEffect.NONE);
    }

    private static Choice<ReportPlan.Subject> inFull(List<Candidate<ReportPlan.Subject>> rows) {
        return new Choice<>(
                rows.stream()
                        .map(each -> new ReportPolicy.Update<>(
                                each.subject(), each.now(), each.now().severity(), Set.of(), false))
                        .toList(),
                List.of(),
                List.of(),
                List.of(),
                0);
    }

    /** Recipients who had as many messages as the rule allows in an hour get these updates with the next message. */
    private static void guardAgainstFlood(
            Map<AudienceKey, Choice<ReportPlan.Subject>> choices, EvaluationInput input, Audiences audiences) {
        if (choices.values().stream().allMatch(choice -> choice.updates().isEmpty())) return;
        int most = input.rule().delivery().options().hourlyLimit();
        var sent = audiences.messagesAfter(input.moment().slot().minus(Duration.ofHours(1)));
        choices.replaceAll((audience, choice) -> sent.getOrDefault(audience, 0) >= most ? choice.notFired() : choice);
    }

    private static void inFull(
            ReportPolicy core,
            Map<AudienceKey, Choice<ReportPlan.Subject>> choices,
            Evaluation evaluation,
            Map<Long, Marks> marks) {
        var open = UpdateCandidates.open(evaluation, marks);
        open.keySet().forEach(audience -> choices.computeIfAbsent(audience, _ -> Choice.nothing()));
        choices.replaceAll((audience, choice) -> {
            var all = core.inFull(
                    choice,
                    open.getOrDefault(audience, List.of()),
                    evaluation.input().moment().slot());
            // A full report without an open exception would say nothing of what the rule asks for.
            return all.updates().stream().anyMatch(each -> each.now().state() == FindingState.OPEN)
                    ? all
                    : choice.notFired();
        });
    }

    private static PendingEffect pending(EvaluationInput input, Audiences audiences) {
        var copies = input.rule().copies();
        var first = copies != null && input.options().newcomer()
                ? copies.newcomers()
                : input.rule().memory().firstCheck();
        boolean known = audiences.areNew() && first == FirstCheck.TREAT_AS_KNOWN;
        return known && input.pending().isNone()
                ? PendingEffect.of(PendingEffect.ReportChoice.TREAT_AS_KNOWN)
                : input.pending();
    }

    /** In the order of the result; what is no longer in it comes last. */
    private static Comparator<ReportPlan.Item> order(
            Evaluation evaluation, Collection<Choice<ReportPlan.Subject>> choices) {
        var told = new HashSet<Digest>();
        choices.forEach(choice ->
                choice.updates().forEach(each -> told.add(each.subject().key())));
        var places = new HashMap<Digest, Integer>();
        if (!told.isEmpty()) {
            evaluation
                    .exceptions()
                    .forEach(told::contains, evaluatedRow -> places.put(evaluatedRow.key(), places.size()));
        }
        return Comparator.comparing(item -> places.getOrDefault(item.subject().key(), Integer.MAX_VALUE));
    }

    private static boolean fires(Evaluation evaluation, Collection<Choice<ReportPlan.Subject>> choices) {
        String fireWhen = evaluation.input().rule().fireWhen();
        if (fireWhen == null) return true;
        var condition = FireWhen.read(fireWhen).readable();
        if (condition == null) throw new IllegalStateException("saved though unreadable: " + fireWhen);
        try {
            return condition.holds(new Counts(evaluation, choices));
        } catch (RowFailureException e) {
            throw new CheckFailureException(
                    FailureKind.CONDITION, "fire_when cannot be calculated: " + e.getMessage() + ".", e);
        }
    }

    private record Counts(Evaluation evaluation, Collection<Choice<ReportPlan.Subject>> choices)
            implements FireWhen.Counts {
        @Override
        public long exceptions(String severity) {
            if (severity.isEmpty()) return evaluation.exceptions().count();
            return Arrays.stream(Severity.values())
                    .filter(each -> each.word().equals(severity))
                    .mapToLong(each -> evaluation.exceptions().count(each))
                    .sum();
        }

        @Override
        public long news(String kind) {
            return choices.stream()
                    .flatMap(choice -> choice.updates().stream())
                    .filter(told -> kind.isEmpty()
                            || told.kinds().stream()
                                    .anyMatch(each -> each.code().equals(kind)))
                    .count();
        }
    }
}
