package dev.oddsentry.service.memory;

import static dev.oddsentry.service.db.generated.Tables.AUDIENCE;
import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.REPORT;
import static dev.oddsentry.service.db.generated.Tables.REPORTED;
import static org.jooq.impl.DSL.any;
import static org.jooq.impl.DSL.inline;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.val;
import static org.jooq.impl.DSL.when;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.Known;
import dev.oddsentry.core.memory.Move;
import dev.oddsentry.core.memory.NewsKind;
import dev.oddsentry.core.memory.Sighting;
import dev.oddsentry.core.memory.State;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.FindingEventRecord;
import dev.oddsentry.service.db.generated.tables.records.FindingRecord;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes memory, in the commit of a check and only what moved. */
@Component
public class MemoryWriter {
    private static final int BATCH = 1_000;

    private final DSLContext db;

    MemoryWriter(DSLContext db) {
        this.db = db;
    }

    /** Which check writes. */
    public record Writing(UUID ruleId, UUID checkId, Instant slot) {}

    /** What becomes of the findings' state now. */
    public void apply(Writing by, List<Move> moves, Columns columns) {
        var opened = new ArrayList<FindingRecord>();
        var changed = new ArrayList<FindingRecord>();
        for (Move move : moves) {
            switch (move) {
                case Move.Opened it -> opened.add(opened(by, it, columns));
                case Move.Altered it -> changed.add(altered(by, it, columns));
                case Move.Missed it -> changed.add(stayed(it.before().id(), it));
                case Move.WithoutData it -> changed.add(stayed(it.before().id(), it));
                case Move.Cleared it -> changed.add(moved(by, it.before().id(), it));
                case Move.Forgotten it -> changed.add(moved(by, it.before().id(), it));
                case Move.PassedBy it -> changed.add(moved(by, it.before().id(), it));
            }
        }
        batches(opened).forEach(some -> db.batchInsert(some).execute());
        batches(changed).forEach(some -> db.batchUpdate(some).execute());
        recordEvents(by, moves);
    }

    private static FindingRecord opened(Writing by, Move.Opened move, Columns columns) {
        Sighting sighting = move.sighting();
        var row = new FindingRecord();
        row.setRuleId(by.ruleId());
        row.setKey(sighting.key().asUuid());
        row.setIdentity(Json.cells(sighting.identity()));
        row.setOpenedAt(by.slot());
        row.setRow(Json.row(columns, sighting.row()));
        return now(row, by, move);
    }

    private static FindingRecord altered(Writing by, Move.Altered move, Columns columns) {
        var row = moved(by, move.before().id(), move);
        if (move.before().now().state() != move.now().state()) row.setOpenedAt(by.slot());
        row.setRow(Json.row(columns, move.sighting().row()));
        return row;
    }

    private static FindingRecord moved(Writing by, long id, Move move) {
        var row = new FindingRecord();
        row.setId(id);
        row.changed(FINDING.ID, false);
        return now(row, by, move);
    }

    /** Of one that is as it was, but for what is counted of it. */
    private static FindingRecord stayed(long id, Move move) {
        var row = new FindingRecord();
        row.setId(id);
        row.changed(FINDING.ID, false);
        return counted(row, move);
    }

    private static FindingRecord now(FindingRecord row, Writing by, Move move) {
        row.setState(move.now().state());
        row.setSeverity(move.now().severity());
        row.setFingerprint(move.now().fingerprint().asUuid());
        row.setChangedAt(by.slot());
        return counted(row, move);
    }

    private static FindingRecord counted(FindingRecord row, Move move) {
        var held = move.now().held();
        var missed = move.now().missed();
        row.setHeldOrdinal(held == null ? null : held.ordinal());
        row.setHeldSlot(held == null ? null : held.slot());
        row.setMissedOrdinal(missed == null ? null : missed.ordinal());
        row.setMissedSlot(missed == null ? null : missed.slot());
        row.setNoData(move.now().noData());
        return row;
    }

    private void recordEvents(Writing by, List<Move> moves) {
        var ids = idsByKey(by.ruleId(), moves);
        var events = new ArrayList<FindingEventRecord>();
        for (Move move : moves) {
            Long id = move instanceof Move.Opened it
                    ? ids.get(it.sighting().key())
                    : move.earlier().map(Known::id).orElse(null);
            events.add(event(
                    by, Objects.requireNonNull(id), kindOf(move), move.now().severity(), null));
        }
        insert(events);
    }

    private static String kindOf(Move move) {
        boolean pending = move.now().state() == State.PENDING;
        return switch (move) {
            case Move.Opened _ -> pending ? "pending" : "opened";
            case Move.Altered(var before, var _, var now)
            when before.now().state() != now.state() -> {
                if (pending) yield "pending again";
                yield before.now().state() == State.PENDING ? "opened" : "opened again";
            }
            case Move.Altered(var before, var _, var now)
            when before.now().severity() != now.severity() -> "severity changed";
            case Move.Altered _ -> "values changed";
            case Move.Missed _ -> "missed";
            case Move.WithoutData _ -> "no data";
            case Move.Forgotten _ -> "forgotten while pending";
            case Move.Cleared _ -> "cleared";
            case Move.PassedBy _ -> "out of sight";
        };
    }

    private static FindingEventRecord event(
            Writing by, long finding, String kind, Severity severity, @Nullable UUID messageId) {
        var event = new FindingEventRecord();
        event.setFindingId(finding);
        event.setCheckId(by.checkId());
        event.setSlot(by.slot());
        event.setKind(kind);
        event.setSeverity(severity);
        event.setMessageId(messageId);
        return event;
    }

    private void insert(List<FindingEventRecord> events) {
        batches(events).forEach(some -> db.batchInsert(some).execute());
    }

    /** The store's numbers of the findings that these moves opened. */
    public Map<Digest, Long> idsByKey(UUID ruleId, Collection<Move> moves) {
        var keys = moves.stream()
                .filter(Move.Opened.class::isInstance)
                .map(move -> ((Move.Opened) move).sighting().key().asUuid())
                .toArray(UUID[]::new);
        if (keys.length == 0) return Map.of();
        return db.select(FINDING.KEY, FINDING.ID)
                .from(FINDING)
                .where(FINDING.RULE_ID.eq(ruleId), FINDING.KEY.eq(any(keys)))
                .fetchMap(row -> Digest.of(row.value1()), row -> row.value2());
    }

    /** The rule's audience, made at its first good check. */
    public long audience(UUID ruleId) {
        db.insertInto(AUDIENCE)
                .set(AUDIENCE.RULE_ID, ruleId)
                .onConflictDoNothing()
                .execute();
        return db.select(AUDIENCE.ID)
                .from(AUDIENCE)
                .where(AUDIENCE.RULE_ID.eq(ruleId))
                .fetchSingle()
                .value1();
    }

    /** @param kinds empty where it was let pass, or told again in full */
    public record Telling(long finding, Severity severity, Set<NewsKind> kinds) {}

    /**
     * Moves what was reported to what is so now, for findings told in a message; keeps what stood there before, so that the report
     * can be taken back.
     */
    public void report(Writing by, long audience, UUID messageId, List<Telling> told) {
        var byKinds = told.stream().collect(Collectors.groupingBy(Telling::kinds));
        byKinds.forEach((kinds, some) -> recordReport(audience, messageId, codes(kinds), ids(some)));
        var events = new ArrayList<FindingEventRecord>();
        for (var telling : told) {
            String kinds = String.join(", ", codes(telling.kinds()));
            String kind = kinds.isEmpty() ? "reported" : "reported as " + kinds;
            events.add(event(by, telling.finding(), kind, telling.severity(), messageId));
        }
        moveReported(by, audience, messageId, ids(told));
        insert(events);
        db.update(AUDIENCE)
                .set(AUDIENCE.LAST_REPORT_SLOT, by.slot())
                .where(AUDIENCE.ID.eq(audience))
                .execute();
    }

    private static String[] codes(Set<NewsKind> kinds) {
        return kinds.stream().sorted().map(NewsKind::code).toArray(String[]::new);
    }

    private static List<Long> ids(List<Telling> told) {
        return told.stream().map(Telling::finding).toList();
    }

    private void recordReport(long audience, UUID messageId, String[] kinds, List<Long> findings) {
        for (var some : batches(findings)) {
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
                            REPORT.BEFORE_MESSAGE_ID)
                    .select(select(
                                    val(messageId),
                                    FINDING.ID,
                                    val(audience),
                                    val(kinds),
                                    REPORTED.STATE,
                                    REPORTED.SEVERITY,
                                    REPORTED.FINGERPRINT,
                                    REPORTED.ROW,
                                    REPORTED.AT,
                                    REPORTED.MESSAGE_ID)
                            .from(FINDING)
                            .leftJoin(REPORTED)
                            .on(REPORTED.FINDING_ID.eq(FINDING.ID), REPORTED.AUDIENCE_ID.eq(audience))
                            .where(FINDING.ID.in(some)))
                    .execute();
        }
    }

    private static <T> List<List<T>> batches(List<T> whole) {
        var batches = new ArrayList<List<T>>();
        for (int i = 0; i < whole.size(); i += BATCH) batches.add(whole.subList(i, Math.min(i + BATCH, whole.size())));
        return batches;
    }

    /** Moves what was reported to what is so now without a word. */
    public void letPass(Writing by, long audience, List<Long> findings) {
        moveReported(by, audience, null, findings);
    }

    private void moveReported(Writing by, long audience, @Nullable UUID messageId, List<Long> findings) {
        for (var some : batches(findings)) {
            db.insertInto(REPORTED)
                    .columns(
                            REPORTED.FINDING_ID,
                            REPORTED.AUDIENCE_ID,
                            REPORTED.STATE,
                            REPORTED.SEVERITY,
                            REPORTED.FINGERPRINT,
                            REPORTED.ROW,
                            REPORTED.AT,
                            REPORTED.MESSAGE_ID)
                    .select(select(
                                    FINDING.ID,
                                    inline(audience),
                                    // Taken as known, a pending one is as known as an open one.
                                    when(FINDING.STATE.eq(State.PENDING), State.OPEN)
                                            .otherwise(FINDING.STATE),
                                    FINDING.SEVERITY,
                                    FINDING.FINGERPRINT,
                                    FINDING.ROW,
                                    val(by.slot()),
                                    val(messageId, UUID.class))
                            .from(FINDING)
                            .where(FINDING.ID.in(some)))
                    .onConflict(REPORTED.FINDING_ID, REPORTED.AUDIENCE_ID)
                    .doUpdate()
                    .setAllToExcluded()
                    .execute();
        }
    }
}
