package dev.oddsentry.service.checks;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.RULE;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.definition.RuleDefinition.Outcome;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.Sighting;
import dev.oddsentry.core.memory.Transition;
import dev.oddsentry.service.calendars.Schedules;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.history.SeriesStore;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.memory.MemoryWriter;
import dev.oddsentry.service.memory.ReportedWriter;
import dev.oddsentry.service.occasions.Occasions;
import dev.oddsentry.service.outbox.Outbox;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.trouble.Troubles;
import java.time.Clock;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Predicate;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/**
 * Last step: one transaction that writes memory, the message with its delivery, and the outcome; or, where anything the check was
 * reckoned with has changed since, nothing at all.
 */
@Component
class CheckCommit {
    private final DSLContext db;
    private final Clock clock;
    private final CheckStore checks;
    private final MemoryWriter memory;
    private final ReportedWriter reported;
    private final Outbox outbox;
    private final Sources sources;
    private final ThresholdStore thresholds;
    private final SeriesStore series;
    private final Troubles troubles;
    private final Occasions occasions;
    private final Schedules schedules;

    CheckCommit(
            DSLContext db,
            Clock clock,
            CheckStore checks,
            MemoryWriter memory,
            ReportedWriter reported,
            Outbox outbox,
            Sources sources,
            ThresholdStore thresholds,
            SeriesStore series,
            Troubles troubles,
            Occasions occasions,
            Schedules schedules) {
        this.db = db;
        this.clock = clock;
        this.checks = checks;
        this.memory = memory;
        this.reported = reported;
        this.outbox = outbox;
        this.sources = sources;
        this.thresholds = thresholds;
        this.series = series;
        this.troubles = troubles;
        this.occasions = occasions;
        this.schedules = schedules;
    }

    /** @return false: stale, and nothing was written */
    @Transactional
    public boolean commit(Attempt attempt, Reckoned reckoned, Told told) {
        var lock = checks.lockRule(attempt.ruleId());
        if (lock.state() != RuleState.ACTIVE || lock.memoryEpoch() != attempt.memoryEpoch() || !stands(attempt))
            return false;
        if (!end(attempt, reckoned, told)) return true;
        troubles.well(attempt.ruleId());
        tellOfBlank(attempt, reckoned);
        occasions.follow(attempt.ruleId(), attempt.checkId(), attempt.slot(), outcomes(reckoned, told));
        var by = new MemoryWriter.Writing(attempt.ruleId(), attempt.checkId(), attempt.slot());
        memory.apply(by, reckoned.moves(), reckoned.columns(), rows(reckoned));
        report(by, told, memory.idsByKey(attempt.ruleId(), reckoned.moves()));
        if (attempt.isCounted()) keepMeasures(attempt, reckoned);
        db.update(RULE)
                .set(RULE.LAST_GOOD_SLOT, attempt.slot())
                .set(RULE.MEMORY_EPOCH, RULE.MEMORY_EPOCH.plus(1))
                .set(RULE.ON_NEXT_CHECK, Transition.ORDINARY)
                .set(RULE.GOOD_SLOTS, RULE.GOOD_SLOTS.plus(attempt.isCounted() ? 1 : 0))
                .where(RULE.ID.eq(attempt.ruleId()))
                .execute();
        return true;
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
            var audience = reported.audience(by.ruleId(), part.audience());
            audiences.put(part.audience(), audience);
            reported.letPass(by, audience, ids(part.letPass(), ids));
        }
        // Without anything to tell, a rule's first good check has made its audience nevertheless.
        if (told.parts().isEmpty()) reported.audience(by.ruleId(), AudienceKey.WHOLE);
        reported.stand(by.ruleId(), ids(told.standing(), ids));
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

    /** Nobody follows a check of which a part was not judged as if it had been quiet. */
    private static Set<Outcome> outcomes(Reckoned reckoned, Told told) {
        var outcomes = EnumSet.noneOf(Outcome.class);
        if (!told.messages().isEmpty()) outcomes.add(Outcome.FIRED);
        else if (reckoned.judge().notJudged().isEmpty()) outcomes.add(Outcome.QUIET);
        if (reckoned.reading().rows() == 0) outcomes.add(Outcome.BLANK);
        return outcomes;
    }

    private void tellOfBlank(Attempt attempt, Reckoned reckoned) {
        boolean tell = attempt.rule().definition().checking().blank() == RuleDefinition.Blank.TELL;
        if (tell && reckoned.reading().rows() == 0)
            troubles.failed(
                    "blank result of " + attempt.rule().definition().name(),
                    attempt.ruleId(),
                    "The result had no row at all.");
    }

    /** Only checks that count add points, one a slot, so that a person who asks often does not bend the usual value. */
    private void keepMeasures(Attempt attempt, Reckoned reckoned) {
        var rule = attempt.rule().definition();
        var points = reckoned.judge().points();
        if (!points.isEmpty())
            series.keep(attempt.ruleId(), rule, attempt.query().definition(), attempt.slot(), points, false);
        boolean expectsThemAgain =
                rule.groups() != null && rule.groups().from() instanceof RuleDefinition.ExpectedGroups.OfLastChecks;
        if (expectsThemAgain)
            series.saw(
                    attempt.ruleId(), attempt.goodSlots() + 1, reckoned.judge().groupsWithRows());
    }

    /** The rule, its query, its thresholds, its calendar and its source are as they were when the check began. */
    private boolean stands(Attempt attempt) {
        var revisions = db.select(DEFINITION.ID, DEFINITION.REVISION)
                .from(DEFINITION)
                .where(DEFINITION.ID.in(attempt.ruleId(), attempt.query().id()))
                .fetchMap(DEFINITION.ID, DEFINITION.REVISION);
        return Objects.equals(revisions.get(attempt.ruleId()), attempt.rule().revision())
                && Objects.equals(
                        revisions.get(attempt.query().id()), attempt.query().revision())
                && thresholds.versions(attempt.thresholdVersions().keySet()).equals(attempt.thresholdVersions())
                && Objects.equals(schedules.revisionOfCalendar(attempt.rule().definition()), attempt.calendarRevision())
                && sources.find(attempt.source().name()).equals(Optional.of(attempt.source()));
    }

    /** @return false: a later attempt has the check, and this one writes nothing */
    private boolean end(Attempt attempt, Reckoned reckoned, Told told) {
        boolean fired = !told.messages().isEmpty();
        var notJudged = reckoned.judge().notJudged();
        var quiet = notJudged.isEmpty() ? CheckState.QUIET : CheckState.NOT_JUDGED;
        if (!checks.end(attempt.checkId(), attempt.number(), fired ? CheckState.FIRED : quiet, null)) return false;
        db.update(RULE_CHECK)
                .set(RULE_CHECK.READ_AT, reckoned.reading().readAt())
                .set(RULE_CHECK.ROWS_READ, reckoned.reading().rows())
                .set(RULE_CHECK.EXCEPTIONS, reckoned.exceptions().count())
                .set(RULE_CHECK.UNKNOWN_ROWS, reckoned.judge().unknownRows())
                .set(RULE_CHECK.NOT_JUDGED, (long) notJudged.size())
                .set(RULE_CHECK.NOT_JUDGED_GROUPS, Json.write(NotJudged.first(reckoned, attempt.moment())))
                .set(RULE_CHECK.PARTS, Json.write(PartCount.of(reckoned)))
                .set(RULE_CHECK.NEWS, told.told().size())
                .set(RULE_CHECK.MESSAGES, told.messages().size())
                .set(
                        RULE_CHECK.TOOK_MS,
                        Math.toIntExact(reckoned.reading().took().toMillis()))
                .set(RULE_CHECK.THRESHOLDS, Json.write(ThresholdsUsed.of(attempt)))
                .set(RULE_CHECK.OPENED, Brake.opened(reckoned.moves()))
                .set(RULE_CHECK.CLEARED, Brake.cleared(reckoned.moves()))
                .set(RULE_CHECK.FINISHED_AT, clock.instant())
                .where(RULE_CHECK.ID.eq(attempt.checkId()))
                .execute();
        return true;
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
