package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.Evaluation;
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
import java.util.UUID;
import java.util.function.Consumer;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes what a check, or one personal copy of it, has found and told: memory, what was reported, the messages, what was measured. */
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
    void keep(Attempt attempt, Evaluation evaluation, ReportPlan told) {
        var by = new MemoryWriter.Writing(attempt.scope(), attempt.checkId(), attempt.slot());
        var hearing = hearing(by, told);
        var heard = heard(evaluation, hearing);
        var taken = taken(hearing);
        NewFindingWriter.AtOpening atOpening = (key, at) -> heard.getOrDefault(key, taken.get(at));
        var ids = memory.apply(by, evaluation.moves(), atOpening, evaluation.columns(), rows(evaluation));
        reported.stand(by.scope(), ids(told.standing(), ids));
        reported.endMarks(by, endedMarks(told, ids));
        hearing.forEach(each -> report(by, each, heard, ids));
        tellRoundUps(by, evaluation, told);
        if (attempt.isCounted()) keepMeasures(attempt, evaluation);
    }

    /** They hear at their own times, but for what they want at once. */
    private void tellRoundUps(MemoryWriter.Writing by, Evaluation evaluation, ReportPlan told) {
        if (evaluation.moves().isEmpty() || by.scope().copy() != null) return;
        var hearing = roundUps.of(by.ruleId());
        if (hearing.isEmpty()) return;
        roundUps.letPassMoved(by.scope(), by.slot(), told.owed());
        hearing.forEach(roundUp -> roundUpTasks.lookAtOnce(roundUp, by));
    }

    /** One audience's part, and the message that tells of it; null where there is nothing to tell. */
    private record Hearing(
            ReportPlan.Part part,
            LastReportWriter.Audience audience,
            @Nullable UUID message) {}

    private List<Hearing> hearing(MemoryWriter.Writing by, ReportPlan told) {
        var audiences = new HashMap<AudienceKey, LastReportWriter.Audience>();
        for (var part : told.parts()) audiences.put(part.audience(), reported.audience(by.scope(), part.audience()));
        // Without anything to tell, a first good check has made its audience nevertheless.
        if (told.parts().isEmpty()) reported.audience(by.scope(), AudienceKey.WHOLE);
        var messages = new HashMap<AudienceKey, UUID>();
        for (var outgoing : told.messages()) {
            // Those who only hear that all is quiet have no part in what is told.
            var first = audiences.computeIfAbsent(
                    outgoing.parts().getFirst().audience(), key -> reported.audience(by.scope(), key));
            var message = outbox.queue(MessageCause.OfCheck.of(by, first.id()), by.slot(), outgoing.message());
            outgoing.parts().forEach(part -> messages.put(part.audience(), message));
        }
        return told.parts().stream()
                .map(part -> new Hearing(
                        part, Objects.requireNonNull(audiences.get(part.audience())), messages.get(part.audience())))
                .toList();
    }

    /** What is heard, by audience, where all that opens is taken as known. */
    private static Map<AudienceKey, NewFindingWriter.Heard> taken(List<Hearing> hearing) {
        var taken = new HashMap<AudienceKey, NewFindingWriter.Heard>();
        for (var each : hearing)
            if (each.part().takesOpened())
                taken.put(
                        each.part().audience(),
                        new NewFindingWriter.Heard(each.audience().id(), null, Set.of()));
        return taken;
    }

    /** What is heard at once of findings that open; the others have rows of their own for what was reported. */
    private static Map<Digest, NewFindingWriter.Heard> heard(Evaluation evaluation, List<Hearing> hearing) {
        var heard = new HashMap<Digest, NewFindingWriter.Heard>();
        for (var each : hearing) {
            long audience = each.audience().id();
            var passed = new NewFindingWriter.Heard(audience, null, Set.of());
            for (var subject : each.part().letPass()) if (opens(subject, evaluation)) heard.put(subject.key(), passed);
            if (each.message() == null) continue;
            var told = new HashMap<Set<UpdateKind>, NewFindingWriter.Heard>();
            for (var item : each.part().told())
                if (opens(item.subject(), evaluation))
                    heard.put(
                            item.subject().key(),
                            told.computeIfAbsent(
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
            Hearing each,
            Map<Digest, NewFindingWriter.Heard> heard,
            NewFindingWriter.Ids ids) {
        reported.letPass(
                by,
                each.audience(),
                each.part().letPass().stream()
                        .filter(subject -> !heard.containsKey(subject.key()))
                        .map(subject -> id(subject, ids))
                        .toList());
        if (each.message() == null) return;
        var atOpening = new ArrayList<ReportPlan.Item>();
        var others = new ArrayList<ReportPlan.Item>();
        for (var item : each.part().told()) (heard.containsKey(item.subject().key()) ? atOpening : others).add(item);
        reported.record(each.audience(), each.message(), tellings(atOpening, ids));
        reported.report(by, each.audience(), each.message(), tellings(others, ids));
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
        var points = evaluation.judge().points();
        if (!points.isEmpty())
            series.keep(attempt.scope(), rule, attempt.query().definition(), attempt.slot(), points, false);
        boolean expectsThemAgain =
                rule.groups() != null && rule.groups().from() instanceof RuleDefinition.ExpectedGroups.OfLastChecks;
        if (expectsThemAgain)
            series.saw(
                    attempt.scope(), attempt.goodSlots() + 1, evaluation.judge().groupsWithRows());
    }

    private static List<LastReportWriter.Telling> tellings(List<ReportPlan.Item> told, NewFindingWriter.Ids ids) {
        return told.stream()
                .map(item -> new LastReportWriter.Telling(id(item.subject(), ids), item.severity(), item.kinds()))
                .toList();
    }

    private static List<Long> ids(List<ReportPlan.Subject> subjects, NewFindingWriter.Ids opened) {
        return subjects.stream().map(subject -> id(subject, opened)).toList();
    }

    private static List<LastReportWriter.EndedMark> endedMarks(ReportPlan told, NewFindingWriter.Ids opened) {
        return told.ended().stream()
                .flatMap(ended -> ended.marks().stream()
                        .map(kind -> new LastReportWriter.EndedMark(id(ended.subject(), opened), kind)))
                .toList();
    }

    private static long id(ReportPlan.Subject subject, NewFindingWriter.Ids opened) {
        return subject.id() != null ? subject.id() : opened.of(subject.key());
    }
}
