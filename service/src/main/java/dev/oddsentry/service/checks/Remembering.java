package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.Sighting;
import dev.oddsentry.service.history.SeriesStore;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.memory.MemoryWriter;
import dev.oddsentry.service.memory.ReportedWriter;
import dev.oddsentry.service.outbox.Outbox;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;

/** Writes what a check, or one personal copy of it, has found and told: memory, what was reported, the messages, what was measured. */
@Component
class Remembering {
    private final MemoryWriter memory;
    private final ReportedWriter reported;
    private final Outbox outbox;
    private final SeriesStore series;

    Remembering(MemoryWriter memory, ReportedWriter reported, Outbox outbox, SeriesStore series) {
        this.memory = memory;
        this.reported = reported;
        this.outbox = outbox;
        this.series = series;
    }

    /** In the transaction that is open. */
    void keep(Attempt attempt, Reckoned reckoned, Told told) {
        var by = new MemoryWriter.Writing(attempt.scope(), attempt.checkId(), attempt.slot());
        memory.apply(by, reckoned.moves(), reckoned.columns(), rows(reckoned));
        report(by, told, memory.idsByKey(attempt.ruleId(), reckoned.moves()));
        if (attempt.isCounted()) keepMeasures(attempt, reckoned);
    }

    private static MemoryWriter.Rows rows(Reckoned reckoned) {
        return new MemoryWriter.Rows() {
            @Override
            public void forEach(Predicate<Digest> which, Consumer<Sighting> act) {
                reckoned.exceptions().forEach(which, act);
            }

            @Override
            public AudienceKey audienceOf(Sighting exception) {
                return reckoned.audienceOf(exception);
            }
        };
    }

    private void report(MemoryWriter.Writing by, Told told, Map<Digest, Long> ids) {
        var audiences = new HashMap<AudienceKey, ReportedWriter.Audience>();
        for (var part : told.parts()) {
            var audience = reported.audience(by.scope(), part.audience());
            audiences.put(part.audience(), audience);
            reported.letPass(by, audience, ids(part.letPass(), ids));
        }
        // Without anything to tell, a first good check has made its audience nevertheless.
        if (told.parts().isEmpty()) reported.audience(by.scope(), AudienceKey.WHOLE);
        reported.stand(by.scope(), ids(told.standing(), ids));
        reported.endMarks(by, endedMarks(told, ids));
        for (var outgoing : told.messages()) {
            var first = Objects.requireNonNull(
                    audiences.get(outgoing.parts().getFirst().audience()));
            var message = outbox.queue(by, first.id(), outgoing.message());
            for (var part : outgoing.parts())
                reported.report(
                        by, Objects.requireNonNull(audiences.get(part.audience())), message, tellings(part, ids));
        }
    }

    /** Only checks that count add points, one a slot, so that a person who asks often does not bend the usual value. */
    private void keepMeasures(Attempt attempt, Reckoned reckoned) {
        var rule = attempt.rule().definition();
        var points = reckoned.judge().points();
        if (!points.isEmpty())
            series.keep(attempt.scope(), rule, attempt.query().definition(), attempt.slot(), points, false);
        boolean expectsThemAgain =
                rule.groups() != null && rule.groups().from() instanceof RuleDefinition.ExpectedGroups.OfLastChecks;
        if (expectsThemAgain)
            series.saw(
                    attempt.scope(), attempt.goodSlots() + 1, reckoned.judge().groupsWithRows());
    }

    private static List<ReportedWriter.Telling> tellings(Told.Part told, Map<Digest, Long> ids) {
        return told.told().stream()
                .map(item -> new ReportedWriter.Telling(id(item.subject(), ids), item.severity(), item.kinds()))
                .toList();
    }

    private static List<Long> ids(List<Told.Subject> subjects, Map<Digest, Long> opened) {
        return subjects.stream().map(subject -> id(subject, opened)).toList();
    }

    private static List<ReportedWriter.EndedMark> endedMarks(Told told, Map<Digest, Long> opened) {
        return told.ended().stream()
                .flatMap(ended -> ended.marks().stream()
                        .map(kind -> new ReportedWriter.EndedMark(id(ended.subject(), opened), kind)))
                .toList();
    }

    private static long id(Told.Subject subject, Map<Digest, Long> opened) {
        return subject.id() != null ? subject.id() : Objects.requireNonNull(opened.get(subject.key()));
    }
}
