package dev.oddsentry.service.memory;

import static dev.oddsentry.service.db.generated.Tables.AUDIENCE;
import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.HANDLING;
import static dev.oddsentry.service.db.generated.Tables.LAST_REPORT;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static org.jooq.impl.DSL.condition;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.countDistinct;
import static org.jooq.impl.DSL.inline;
import static org.jooq.impl.DSL.noCondition;
import static org.jooq.impl.DSL.select;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.CurrentFinding;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.KnownTable;
import dev.oddsentry.core.memory.LastReport;
import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.memory.StoredFinding;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.FindingRecord;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads memory: the current state and what was last reported. */
@Component
public class MemoryStore {
    /** As the index has it, which knows where to find these few among a million; so nothing of it is a parameter. */
    private static final Condition STANDING_OR_PENDING =
            condition(FINDING.UNREPORTED).or(FINDING.STATE.eq(inline(FindingState.PENDING, FINDING.STATE)));

    private final DSLContext db;

    MemoryStore(DSLContext db) {
        this.db = db;
    }

    private static Condition findingsOf(Scope scope) {
        return scope.holds(FINDING.RULE_ID, FINDING.COPY_KEY);
    }

    private static Condition audiencesOf(Scope scope) {
        return scope.holds(AUDIENCE.RULE_ID, AUDIENCE.COPY_KEY).and(AUDIENCE.ROUND_UP_ID.isNull());
    }

    /** False before the first good check. */
    public boolean hasAudience(Scope scope) {
        return db.fetchExists(AUDIENCE, audiencesOf(scope));
    }

    /** When each audience last got a report; only those that did. */
    public Map<AudienceKey, Instant> lastReports(Scope scope) {
        return db.select(AUDIENCE.SPLIT_VALUE, AUDIENCE.LAST_REPORT_SLOT)
                .from(AUDIENCE)
                .where(audiencesOf(scope), AUDIENCE.LAST_REPORT_SLOT.isNotNull())
                .fetchMap(row -> new AudienceKey(row.value1()), row -> row.value2());
    }

    /** How many messages of checks each audience was sent for slots after that one; only of those that were sent any. */
    public Map<AudienceKey, Integer> messagesAfter(Scope scope, Instant slot) {
        // One check may send an audience messages in several languages.
        return db.select(AUDIENCE.SPLIT_VALUE, countDistinct(MESSAGE.CHECK_ID))
                .from(MESSAGE)
                .join(AUDIENCE)
                .on(AUDIENCE.ID.eq(MESSAGE.AUDIENCE_ID))
                .where(audiencesOf(scope), MESSAGE.SLOT.gt(slot), MESSAGE.REPEAT_OF.isNull())
                .groupBy(AUDIENCE.SPLIT_VALUE)
                .fetchMap(row -> new AudienceKey(row.value1()), row -> row.value2());
    }

    /** How many findings of each audience are open. */
    public Map<AudienceKey, Integer> open(Scope scope) {
        return db.select(FINDING.SPLIT_VALUE, count())
                .from(FINDING)
                .where(findingsOf(scope), FINDING.STATE.eq(FindingState.OPEN))
                .groupBy(FINDING.SPLIT_VALUE)
                .fetchMap(row -> new AudienceKey(row.value1()), row -> row.value2());
    }

    /** The current state of every finding, read as it streams so that only the table is held. */
    @Transactional(readOnly = true)
    public KnownTable known(Scope scope) {
        var table = new KnownTable(db.fetchCount(FINDING, findingsOf(scope)));
        db.connection(connection -> KnownCopy.read(connection, scope, table));
        return table;
    }

    static CurrentFinding now(FindingRecord row) {
        return new CurrentFinding(
                row.getState(),
                row.getSeverity(),
                Digest.of(row.getFingerprint()),
                start(row.getLastingOrdinal(), row.getLastingSlot()),
                start(row.getAbsentOrdinal(), row.getAbsentSlot()),
                start(row.getBetterOrdinal(), row.getBetterSlot()),
                row.getNoData());
    }

    /**
     * The audiences' last reports, before this check, of findings that may have an update.
     *
     * @param moved the store's numbers of those that the check moves
     * @param which in addition to findings with unreported updates and those with handling
     */
    public List<Before> mayTell(Scope scope, Collection<Long> moved, MayTell which) {
        var found = new HashMap<Long, Before>();
        before(findingsOf(scope)
                        .and(STANDING_OR_PENDING)
                        .and(which.pendingToo() ? noCondition() : condition(FINDING.UNREPORTED)))
                .forEach(each -> found.put(each.known().id(), each));
        if (which.openToo())
            before(findingsOf(scope).and(FINDING.STATE.eq(FindingState.OPEN)))
                    .forEach(each -> found.put(each.known().id(), each));
        before(findingsOf(scope)
                        .and(FINDING.ID.in(
                                select(HANDLING.FINDING_ID).from(HANDLING).where(HANDLING.ENDED_AT.isNull()))))
                .forEach(each -> found.put(each.known().id(), each));
        var missing = moved.stream().filter(id -> !found.containsKey(id)).toList();
        for (var some : Batches.of(missing))
            before(Batches.isOneOf(FINDING.ID, some))
                    .forEach(each -> found.put(each.known().id(), each));
        var marks = marks(scope);
        return found.values().stream()
                .map(each -> each.with(marks.getOrDefault(each.known().id(), Marks.NONE)))
                .toList();
    }

    /** The keys of findings that may have an update at a check that does not change them. */
    public Set<Digest> mayTellUnmoved(Scope scope) {
        return db.select(FINDING.KEY)
                .from(FINDING)
                .where(findingsOf(scope), STANDING_OR_PENDING)
                .union(select(FINDING.KEY)
                        .from(HANDLING)
                        .join(FINDING)
                        .on(FINDING.ID.eq(HANDLING.FINDING_ID))
                        .where(findingsOf(scope), HANDLING.ENDED_AT.isNull()))
                .fetchSet(row -> Digest.of(row.value1()));
    }

    /**
     * @param pendingToo whether those that did not last long enough yet count, since they would be taken as known
     * @param openToo whether every open one counts, since a reminder may be due
     */
    public record MayTell(boolean pendingToo, boolean openToo) {}

    /**
     * A finding before this check, and the last reports of it.
     *
     * @param at whose it was
     * @param reported the last report to each audience; only those that have one
     */
    public record Before(StoredFinding known, AudienceKey at, Map<AudienceKey, LastReport> reported, Marks marks) {
        Before with(Marks others) {
            return new Before(known, at, reported, others);
        }
    }

    private Collection<Before> before(Condition which) {
        var found = new LinkedHashMap<Long, Before>();
        var heard = AUDIENCE.as("heard");
        db.select(FINDING.fields())
                .select(
                        AUDIENCE.SPLIT_VALUE,
                        AUDIENCE.ROUND_UP_ID,
                        LAST_REPORT.STATE,
                        LAST_REPORT.SEVERITY,
                        LAST_REPORT.FINGERPRINT,
                        LAST_REPORT.REPORTED_AT)
                .select(heard.SPLIT_VALUE)
                .from(FINDING)
                .leftJoin(LAST_REPORT)
                .on(LAST_REPORT.FINDING_ID.eq(FINDING.ID))
                .leftJoin(AUDIENCE)
                .on(AUDIENCE.ID.eq(LAST_REPORT.AUDIENCE_ID))
                .leftJoin(heard)
                .on(heard.ID.eq(FINDING.OPENING_AUDIENCE))
                .where(which)
                .forEach(row -> {
                    var before =
                            found.computeIfAbsent(row.get(FINDING.ID), _ -> before(row, row.get(heard.SPLIT_VALUE)));
                    // Reports of round-ups do not concern a check.
                    if (row.get(LAST_REPORT.STATE) == null || row.get(AUDIENCE.ROUND_UP_ID) != null) return;
                    before.reported()
                            .put(
                                    new AudienceKey(row.get(AUDIENCE.SPLIT_VALUE)),
                                    new LastReport(
                                            row.get(LAST_REPORT.STATE),
                                            row.get(LAST_REPORT.SEVERITY),
                                            Digest.of(row.get(LAST_REPORT.FINGERPRINT)),
                                            row.get(LAST_REPORT.REPORTED_AT)));
                });
        return found.values();
    }

    /** @param heard the split value of the audience that got the opening report */
    private static Before before(Record row, @Nullable String heard) {
        var finding = row.into(FINDING);
        var reported = new HashMap<AudienceKey, LastReport>(2);
        if (finding.getOpeningAudience() != null)
            reported.put(
                    new AudienceKey(heard),
                    new LastReport(
                            finding.getState(),
                            finding.getSeverity(),
                            Digest.of(finding.getFingerprint()),
                            finding.getOpeningReported() ? finding.getOpenedAt() : null));
        var known = new StoredFinding(finding.getId(), Digest.of(finding.getKey()), now(finding));
        return new Before(known, new AudienceKey(finding.getSplitValue()), reported, Marks.NONE);
    }

    /** The handling of findings, by finding; only those that have any. */
    public Map<Long, Marks> marks(Scope scope) {
        var marks = new HashMap<Long, Marks>();
        db.select(HANDLING.FINDING_ID, HANDLING.KIND, HANDLING.SEVERITY, HANDLING.UNTIL)
                .from(HANDLING)
                .join(FINDING)
                .on(FINDING.ID.eq(HANDLING.FINDING_ID))
                .where(findingsOf(scope), HANDLING.ENDED_AT.isNull())
                .forEach(row ->
                        marks.merge(row.value1(), Marks.of(row.value2(), row.value3(), row.value4()), Marks::and));
        return marks;
    }

    /** Whether a reminder of an open finding may be due. */
    public boolean isAnyReportedBefore(Scope scope, Instant slot) {
        return db.fetchExists(
                        FINDING,
                        findingsOf(scope)
                                .and(FINDING.STATE.eq(FindingState.OPEN))
                                .and(FINDING.OPENING_REPORTED)
                                .and(FINDING.OPENED_AT.le(slot)))
                || db.fetchExists(select(LAST_REPORT.FINDING_ID)
                        .from(LAST_REPORT)
                        .join(FINDING)
                        .on(FINDING.ID.eq(LAST_REPORT.FINDING_ID))
                        .where(
                                findingsOf(scope),
                                FINDING.STATE.eq(FindingState.OPEN),
                                LAST_REPORT.REPORTED_AT.le(slot)));
    }

    private static MinimumDuration.@Nullable Start start(@Nullable Long ordinal, @Nullable Instant slot) {
        return ordinal == null || slot == null ? null : new MinimumDuration.Start(ordinal, slot);
    }

    /** Last rows by finding, cells by column name. */
    public Map<Long, Map<String, @Nullable Object>> lastRows(Collection<Long> findings) {
        return db.select(FINDING.ID, FINDING.ROW)
                .from(FINDING)
                .where(FINDING.ID.in(findings))
                .fetchMap(FINDING.ID, row -> Json.row(row.value2()));
    }

    /** When findings began: when their exceptions were first seen, by finding. */
    public Map<Long, Instant> beginnings(Collection<Long> findings) {
        var began = new HashMap<Long, Instant>();
        for (var some : Batches.of(List.copyOf(findings)))
            db.select(FINDING.ID, FINDING.OPENED_AT, FINDING.LASTING_SLOT)
                    .from(FINDING)
                    .where(Batches.isOneOf(FINDING.ID, some))
                    .forEach(row -> began.put(row.value1(), earlier(row.value2(), row.value3())));
        return began;
    }

    private static Instant earlier(Instant opened, @Nullable Instant lasting) {
        return lasting != null && lasting.isBefore(opened) ? lasting : opened;
    }

    /** The rows as last reported to the audience, by finding. */
    public Map<Long, Map<String, @Nullable Object>> reportedRows(AudienceKey audience, Collection<Long> findings) {
        return reportedRows(
                AUDIENCE.SPLIT_VALUE.isNotDistinctFrom(audience.split()).and(AUDIENCE.ROUND_UP_ID.isNull()), findings);
    }

    Map<Long, Map<String, @Nullable Object>> reportedRows(Condition isAudience, Collection<Long> findings) {
        return db.select(LAST_REPORT.FINDING_ID, LAST_REPORT.ROW)
                .from(LAST_REPORT)
                .join(AUDIENCE)
                .on(AUDIENCE.ID.eq(LAST_REPORT.AUDIENCE_ID), isAudience)
                .where(LAST_REPORT.FINDING_ID.in(findings))
                .unionAll(select(FINDING.ID, FINDING.ROW)
                        .from(FINDING)
                        .join(AUDIENCE)
                        .on(AUDIENCE.ID.eq(FINDING.OPENING_AUDIENCE), isAudience)
                        .where(FINDING.ID.in(findings)))
                .fetchMap(row -> row.value1(), row -> Json.row(row.value2()));
    }
}
