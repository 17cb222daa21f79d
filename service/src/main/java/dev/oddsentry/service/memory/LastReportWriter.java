package dev.oddsentry.service.memory;

import static dev.oddsentry.service.db.generated.Tables.AUDIENCE;
import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static dev.oddsentry.service.db.generated.Tables.HANDLING;
import static dev.oddsentry.service.db.generated.Tables.LAST_REPORT;
import static dev.oddsentry.service.db.generated.Tables.REPORT;
import static org.jooq.impl.DSL.all;
import static org.jooq.impl.DSL.falseCondition;
import static org.jooq.impl.DSL.inline;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.val;
import static org.jooq.impl.DSL.when;

import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.service.ids.AudienceId;
import dev.oddsentry.service.ids.MessageId;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes last reports, in the commit of a check: reported in a message, treated as known, or unreported until a later check. */
@Component
public class LastReportWriter {
    private static final List<Field<?>> COLUMNS = List.of(
            LAST_REPORT.FINDING_ID,
            LAST_REPORT.AUDIENCE_ID,
            LAST_REPORT.STATE,
            LAST_REPORT.SEVERITY,
            LAST_REPORT.FINGERPRINT,
            LAST_REPORT.ROW,
            LAST_REPORT.AT,
            LAST_REPORT.REPORTED_AT,
            LAST_REPORT.MESSAGE_ID);

    private final DSLContext db;
    private final FindingEvents events;
    private final Clock clock;

    LastReportWriter(DSLContext db, FindingEvents events, Clock clock) {
        this.db = db;
        this.clock = clock;
        this.events = events;
    }

    /** @param key who it is; null for a round-up, which gets all findings of the rule whatever its split */
    public record Audience(AudienceId id, @Nullable AudienceKey key) {
        static Audience ofRoundUp(AudienceId id) {
            return new Audience(id, null);
        }

        /** True of a finding that is theirs no more. */
        private Condition hasLost() {
            return key == null ? falseCondition() : FINDING.SPLIT_VALUE.isDistinctFrom(key.split());
        }
    }

    /** An audience, created if it does not exist. */
    public Audience audience(Scope scope, AudienceKey key) {
        db.insertInto(AUDIENCE)
                .set(AUDIENCE.RULE_ID, scope.ruleId())
                .set(AUDIENCE.COPY_KEY, scope.copy())
                .set(AUDIENCE.SPLIT_VALUE, key.split())
                .onConflictDoNothing()
                .execute();
        AudienceId id = db.select(AUDIENCE.ID)
                .from(AUDIENCE)
                .where(
                        scope.holds(AUDIENCE.RULE_ID, AUDIENCE.COPY_KEY),
                        AUDIENCE.ROUND_UP_ID.isNull(),
                        AUDIENCE.SPLIT_VALUE.isNotDistinctFrom(key.split()))
                .fetchSingle()
                .value1();
        return new Audience(id, key);
    }

    /** @param kinds empty if it was treated as known, or reported again in full */
    public record ReportedUpdate(long finding, Severity severity, Set<UpdateKind> kinds) {}

    /**
     * Moves what was reported to the current state, for findings reported in a message; keeps the earlier values, so that the report
     * can be taken back.
     */
    public void report(MemoryWriter.Writing by, Audience audience, MessageId messageId, List<ReportedUpdate> told) {
        keepAsRows(ids(told));
        record(audience, messageId, told);
        moveReported(by, audience, messageId, ids(told));
        var byKind = new HashMap<FindingEvents.Kind, List<Long>>();
        for (var each : told) {
            var kind = new FindingEvents.Kind(FindingEventKind.REPORTED, each.severity(), each.kinds());
            byKind.computeIfAbsent(kind, _ -> new ArrayList<>()).add(each.finding());
        }
        byKind.forEach((kind, findings) -> events.record(by, kind, findings, messageId));
    }

    /** The updates of a message, and the last reports before it. */
    public void record(Audience audience, MessageId messageId, List<ReportedUpdate> told) {
        var byKinds = told.stream().collect(Collectors.groupingBy(ReportedUpdate::kinds));
        byKinds.forEach((kinds, some) -> recordReport(audience.id(), messageId, FindingEvents.codes(kinds), ids(some)));
    }

    /** The audience has a message of this slot. */
    public void heard(MemoryWriter.Writing by, Audience audience) {
        db.update(AUDIENCE)
                .set(AUDIENCE.LAST_REPORT_SLOT, by.slot())
                .where(AUDIENCE.ID.eq(audience.id()))
                .execute();
    }

    private static List<Long> ids(List<ReportedUpdate> told) {
        return told.stream().map(ReportedUpdate::finding).toList();
    }

    private void recordReport(AudienceId audience, MessageId messageId, String[] kinds, List<Long> findings) {
        for (var some : Batches.of(findings)) {
            db.insertInto(REPORT)
                    .columns(
                            REPORT.MESSAGE_ID,
                            REPORT.FINDING_ID,
                            REPORT.AUDIENCE_ID,
                            REPORT.KINDS,
                            REPORT.BEFORE_STATE,
                            REPORT.BEFORE_SEVERITY,
                            REPORT.BEFORE_FINGERPRINT,
                            REPORT.BEFORE_ROW,
                            REPORT.BEFORE_AT,
                            REPORT.BEFORE_REPORTED_AT,
                            REPORT.BEFORE_MESSAGE_ID)
                    .select(select(
                                    val(messageId, REPORT.MESSAGE_ID),
                                    FINDING.ID,
                                    val(audience, REPORT.AUDIENCE_ID),
                                    val(kinds),
                                    LAST_REPORT.STATE,
                                    LAST_REPORT.SEVERITY,
                                    LAST_REPORT.FINGERPRINT,
                                    LAST_REPORT.ROW,
                                    LAST_REPORT.AT,
                                    LAST_REPORT.REPORTED_AT,
                                    LAST_REPORT.MESSAGE_ID)
                            .from(Batches.wanted(some))
                            .join(FINDING)
                            .on(FINDING.ID.eq(Batches.WANTED_ID))
                            .leftJoin(LAST_REPORT)
                            .on(LAST_REPORT.FINDING_ID.eq(FINDING.ID), LAST_REPORT.AUDIENCE_ID.eq(audience)))
                    .execute();
        }
    }

    /** Moves what was reported to the current state without a word. */
    public void letPass(MemoryWriter.Writing by, Audience audience, List<Long> findings) {
        keepAsRows(findings);
        moveReported(by, audience, null, findings);
        var now = clock.instant();
        for (var some : Batches.of(findings)) {
            db.insertInto(FINDING_EVENT)
                    .columns(
                            FINDING_EVENT.AT,
                            FINDING_EVENT.FINDING_ID,
                            FINDING_EVENT.CHECK_ID,
                            FINDING_EVENT.SLOT,
                            FINDING_EVENT.KIND,
                            FINDING_EVENT.SEVERITY)
                    .select(select(
                                    val(now, FINDING_EVENT.AT),
                                    FINDING.ID,
                                    val(by.checkId(), FINDING_EVENT.CHECK_ID),
                                    val(by.slot()),
                                    inline(FindingEventKind.TREATED_AS_KNOWN, FINDING_EVENT.KIND),
                                    FINDING.SEVERITY)
                            .from(Batches.wanted(some))
                            .join(FINDING)
                            .on(FINDING.ID.eq(Batches.WANTED_ID)))
                    .execute();
        }
    }

    /** Exactly these findings have unreported updates. */
    public void stand(Scope scope, List<Long> findings) {
        var ids = findings.toArray(Long[]::new);
        db.update(FINDING)
                .set(FINDING.UNREPORTED, false)
                .where(
                        scope.holds(FINDING.RULE_ID, FINDING.COPY_KEY),
                        FINDING.UNREPORTED.isTrue(),
                        FINDING.ID.ne(all(ids)))
                .execute();
        for (var some : Batches.of(findings))
            db.update(FINDING)
                    .set(FINDING.UNREPORTED, true)
                    .where(Batches.isOneOf(FINDING.ID, some), FINDING.UNREPORTED.isFalse())
                    .execute();
    }

    public record EndedMark(long finding, Marks.Kind kind) {}

    /** Records which handling the current state has ended. */
    public void endMarks(MemoryWriter.Writing by, List<EndedMark> ended) {
        for (var mark : ended) {
            db.update(HANDLING)
                    .set(HANDLING.ENDED_AT, by.slot())
                    .set(HANDLING.ENDED_CHECK, by.checkId())
                    .where(
                            HANDLING.FINDING_ID.eq(mark.finding()),
                            HANDLING.KIND.eq(mark.kind()),
                            HANDLING.ENDED_AT.isNull())
                    .execute();
            db.insertInto(FINDING_EVENT)
                    .set(FINDING_EVENT.AT, clock.instant())
                    .set(FINDING_EVENT.FINDING_ID, mark.finding())
                    .set(FINDING_EVENT.CHECK_ID, by.checkId())
                    .set(FINDING_EVENT.SLOT, by.slot())
                    .set(FINDING_EVENT.KIND, FindingEventKind.ended(mark.kind()))
                    .set(
                            FINDING_EVENT.SEVERITY,
                            select(FINDING.SEVERITY).from(FINDING).where(FINDING.ID.eq(mark.finding())))
                    .execute();
        }
    }

    /** Writes the opening reports of these into rows of their own, before they change or are reported again. */
    void keepAsRows(List<Long> findings) {
        for (var some : Batches.of(findings)) {
            var kept = Batches.isOneOf(FINDING.ID, some).and(FINDING.OPENING_AUDIENCE.isNotNull());
            int rows = db.insertInto(LAST_REPORT, COLUMNS)
                    .select(select(
                                    FINDING.ID,
                                    FINDING.OPENING_AUDIENCE,
                                    FINDING.STATE,
                                    FINDING.SEVERITY,
                                    FINDING.FINGERPRINT,
                                    FINDING.ROW,
                                    FINDING.OPENED_AT,
                                    when(FINDING.OPENING_REPORTED, FINDING.OPENED_AT),
                                    FINDING.OPENING_MESSAGE)
                            .from(FINDING)
                            .where(kept))
                    .execute();
            if (rows == 0) continue;
            db.update(FINDING)
                    .setNull(FINDING.OPENING_AUDIENCE)
                    .set(FINDING.OPENING_REPORTED, false)
                    .setNull(FINDING.OPENING_MESSAGE)
                    .where(kept)
                    .execute();
        }
    }

    private void moveReported(
            MemoryWriter.Writing by, Audience audience, @Nullable MessageId messageId, List<Long> findings) {
        for (var some : Batches.of(findings)) {
            db.insertInto(LAST_REPORT, COLUMNS)
                    .select(select(
                                    FINDING.ID,
                                    inline(audience.id(), LAST_REPORT.AUDIENCE_ID),
                                    // For those it moved away from it is over. Taken as known, a pending one is as
                                    // known as an open one.
                                    when(audience.hasLost(), FindingState.CLEARED)
                                            .when(FINDING.STATE.eq(FindingState.PENDING), FindingState.OPEN)
                                            .otherwise(FINDING.STATE),
                                    FINDING.SEVERITY,
                                    FINDING.FINGERPRINT,
                                    FINDING.ROW,
                                    val(by.slot()),
                                    // Treated as known, the time of the last report stays.
                                    messageId == null ? LAST_REPORT.REPORTED_AT : val(by.slot()),
                                    val(messageId, LAST_REPORT.MESSAGE_ID))
                            .from(Batches.wanted(some))
                            .join(FINDING)
                            .on(FINDING.ID.eq(Batches.WANTED_ID))
                            .leftJoin(LAST_REPORT)
                            .on(LAST_REPORT.FINDING_ID.eq(FINDING.ID), LAST_REPORT.AUDIENCE_ID.eq(audience.id())))
                    .onConflict(LAST_REPORT.FINDING_ID, LAST_REPORT.AUDIENCE_ID)
                    .doUpdate()
                    .setAllToExcluded()
                    .execute();
        }
    }
}
