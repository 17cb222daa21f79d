package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.ids.AudienceId;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.measurements.MeasurementStore;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.memory.LastReportWriter;
import dev.oddsentry.service.memory.MemoryWriter;
import dev.oddsentry.service.memory.NewFindingWriter;
import dev.oddsentry.service.memory.RoundUpMemory;
import dev.oddsentry.service.outbox.MessageCause;
import dev.oddsentry.service.outbox.Outbox;
import dev.oddsentry.service.reporting.ReportPlan;
import dev.oddsentry.service.roundups.RoundUpTasks;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes the result of a check or personal copy: memory, last reports, messages, measurements. */
@Component
class ResultWriter {
    private final MemoryWriter memory;
    private final LastReportWriter reported;
    private final Outbox outbox;
    private final MeasurementStore series;
    private final RoundUpMemory roundUps;
    private final RoundUpTasks roundUpTasks;

    ResultWriter(
            MemoryWriter memory,
            LastReportWriter reported,
            Outbox outbox,
            MeasurementStore series,
            RoundUpMemory roundUps,
            RoundUpTasks roundUpTasks) {
        this.memory = memory;
        this.reported = reported;
        this.outbox = outbox;
        this.series = series;
        this.roundUps = roundUps;
        this.roundUpTasks = roundUpTasks;
    }

    /** In the transaction that is open. */
    void keep(Attempt attempt, Evaluation evaluation, ReportPlan plan) {
        var by = new MemoryWriter.Writing(attempt.scope(), attempt.checkId(), attempt.slot());
        var reports = reports(by, plan);
        if (attempt.rule().definition().isPlainReport()) {
            for (var each : reports) if (each.message() != null) reported.heard(by, each.audience());
            if (attempt.pending().startsOver()) memory.endAll(by);
            if (attempt.isCounted()) keepMeasures(attempt, evaluation);
            return;
        }
        var heard = heard(evaluation, reports);
        var taken = taken(reports);
        NewFindingWriter.AtOpening atOpening = (key, at) -> heard.getOrDefault(key, taken.get(at));
        var ids = memory.apply(by, evaluation.moves(), atOpening, evaluation.columns(), rows(evaluation));
        reported.stand(by.scope(), ids(plan.unreported(), ids));
        reported.endMarks(by, endedMarks(plan, ids));
        reports.forEach(each -> report(by, each, heard, ids));
        updateRoundUps(by, evaluation, plan);
        if (attempt.isCounted()) keepMeasures(attempt, evaluation);
    }

    /** Round-ups report at their own times, except updates that they send immediately. */
    private void updateRoundUps(MemoryWriter.Writing by, Evaluation evaluation, ReportPlan plan) {
        if (evaluation.moves().isEmpty() || by.scope().copy() != null) return;
        var reports = roundUps.of(by.ruleId());
        if (reports.isEmpty()) return;
        roundUps.treatMovedAsKnown(by.scope(), by.slot(), plan.pendingEffect());
        reports.forEach(roundUp -> roundUpTasks.lookAtOnce(roundUp, by));
    }

    /** One audience's part of the plan, and the message with it; null without updates. */
    private record AudienceReport(
            ReportPlan.Part part,
            LastReportWriter.Audience audience,
            @Nullable MessageId message) {}

    private List<AudienceReport> reports(MemoryWriter.Writing by, ReportPlan plan) {
        var audiences = new HashMap<AudienceKey, LastReportWriter.Audience>();
        for (var part : plan.parts()) audiences.put(part.audience(), reported.audience(by.scope(), part.audience()));
        // The first successful check creates the audience even without updates.
        if (plan.parts().isEmpty()) reported.audience(by.scope(), AudienceKey.WHOLE);
        var messages = new HashMap<AudienceKey, MessageId>();
        for (var outgoing : plan.messages()) {
            // A "nothing new" message has no part in the plan.
            var first = audiences.computeIfAbsent(
                    outgoing.parts().getFirst().audience(), key -> reported.audience(by.scope(), key));
            var message = outbox.queue(MessageCause.OfCheck.of(by, first.id()), by.slot(), outgoing.message());
            outgoing.parts().forEach(part -> messages.put(part.audience(), message));
        }
        return plan.parts().stream()
                .map(part -> new AudienceReport(
                        part, Objects.requireNonNull(audiences.get(part.audience())), messages.get(part.audience())))
                .toList();
    }

    /** The opening report by audience, if all that opens is treated as known. */
    private static Map<AudienceKey, NewFindingWriter.Heard> taken(List<AudienceReport> reports) {
        var taken = new HashMap<AudienceKey, NewFindingWriter.Heard>();
        for (var each : reports)
            if (each.part().treatsOpenedAsKnown())
                taken.put(
                        each.part().audience(),
                        new NewFindingWriter.Heard(each.audience().id(), null, Set.of()));
        return taken;
    }

    /** The opening reports of findings that open; other reports have rows of their own. */
    private static Map<Digest, NewFindingWriter.Heard> heard(Evaluation evaluation, List<AudienceReport> reports) {
        var heard = new HashMap<Digest, NewFindingWriter.Heard>();
        for (var each : reports) {
            AudienceId audience = each.audience().id();
            var passed = new NewFindingWriter.Heard(audience, null, Set.of());
            for (var subject : each.part().treatedAsKnown())
                if (opens(subject, evaluation)) heard.put(subject.key(), passed);
            if (each.message() == null) continue;
            var plan = new HashMap<Set<UpdateKind>, NewFindingWriter.Heard>();
            for (var item : each.part().updates())
                if (opens(item.subject(), evaluation))
                    heard.put(
                            item.subject().key(),
                            plan.computeIfAbsent(
                                    item.kinds(),
                                    kinds -> new NewFindingWriter.Heard(audience, each.message(), kinds)));
        }
        return heard;
    }

    /** True of one that is new and open; one that is pending is known as if it were open, which is not as it is now. */
    private static boolean opens(ReportPlan.Subject subject, Evaluation evaluation) {
        return subject.id() == null && !evaluation.pending().contains(subject.key());
    }

    private void report(
            MemoryWriter.Writing by,
            AudienceReport each,
            Map<Digest, NewFindingWriter.Heard> heard,
            NewFindingWriter.Ids ids) {
        reported.letPass(
                by,
                each.audience(),
                each.part().treatedAsKnown().stream()
                        .filter(subject -> !heard.containsKey(subject.key()))
                        .map(subject -> id(subject, ids))
                        .toList());
        if (each.message() == null) return;
        var atOpening = new ArrayList<ReportPlan.Item>();
        var others = new ArrayList<ReportPlan.Item>();
        for (var item : each.part().updates()) (heard.containsKey(item.subject().key()) ? atOpening : others).add(item);
        reported.record(each.audience(), each.message(), reportedUpdates(atOpening, ids));
        reported.report(by, each.audience(), each.message(), reportedUpdates(others, ids));
        reported.heard(by, each.audience());
    }

    private static MemoryWriter.Rows rows(Evaluation evaluation) {
        return new MemoryWriter.Rows() {
            @Override
            public void forEach(Predicate<Digest> which, Consumer<EvaluatedRow> act) {
                evaluation.exceptions().forEach(which, act);
            }

            @Override
            public AudienceKey audienceOf(EvaluatedRow exception) {
                return evaluation.audienceOf(exception);
            }
        };
    }

    /** Only checks that count add points, one a slot, so that a person who asks often does not bend the usual value. */
    private void keepMeasures(Attempt attempt, Evaluation evaluation) {
        var rule = attempt.rule().definition();
        var points = evaluation.evaluator().points();
        if (!points.isEmpty())
            series.keep(attempt.scope(), rule, attempt.query().definition(), attempt.slot(), points, false);
        boolean expectsThemAgain =
                rule.groups() != null && rule.groups().from() instanceof RuleDefinition.ExpectedGroups.OfLastChecks;
        if (expectsThemAgain)
            series.saw(
                    attempt.scope(),
                    attempt.goodSlots() + 1,
                    evaluation.evaluator().groupsWithRows());
    }

    private static List<LastReportWriter.ReportedUpdate> reportedUpdates(
            List<ReportPlan.Item> plan, NewFindingWriter.Ids ids) {
        return plan.stream()
                .map(item ->
                        new LastReportWriter.ReportedUpdate(id(item.subject(), ids), item.severity(), item.kinds()))
                .toList();
    }

    private static List<Long> ids(List<ReportPlan.Subject> subjects, NewFindingWriter.Ids opened) {
        return subjects.stream().map(subject -> id(subject, opened)).toList();
    }

    private static List<LastReportWriter.EndedMark> endedMarks(ReportPlan plan, NewFindingWriter.Ids opened) {
        return plan.ended().stream()
                .flatMap(ended -> ended.marks().stream()
                        .map(kind -> new LastReportWriter.EndedMark(id(ended.subject(), opened), kind)))
                .toList();
    }

    private static long id(ReportPlan.Subject subject, NewFindingWriter.Ids opened) {
        return subject.id() != null ? subject.id() : opened.of(subject.key());
    }
}
