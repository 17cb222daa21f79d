package dev.oddsentry.service.memory;

import static dev.oddsentry.service.db.generated.Tables.AUDIENCE;
import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static dev.oddsentry.service.db.generated.Tables.MARK;
import static dev.oddsentry.service.db.generated.Tables.REPORT;
import static dev.oddsentry.service.db.generated.Tables.REPORTED;
import static org.jooq.impl.DSL.all;
import static org.jooq.impl.DSL.any;
import static org.jooq.impl.DSL.inline;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.val;
import static org.jooq.impl.DSL.when;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.Known;
import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.core.memory.Move;
import dev.oddsentry.core.memory.NewsKind;
import dev.oddsentry.core.memory.Sighting;
import dev.oddsentry.core.memory.State;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.FindingRecord;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.function.Consumer;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes memory, in the commit of a check and only what moved. */
@Component
public class MemoryWriter {
    private static final int BATCH = 5_000;

    private final DSLContext db;

    MemoryWriter(DSLContext db) {
        this.db = db;
    }

    /** Rows that can be gone through as often as one wants, those of certain keys alone. */
    public interface Rows {
        void forEach(Predicate<Digest> which, Consumer<Sighting> act);
    }

    /** Which check writes. */
    public record Writing(UUID ruleId, UUID checkId, Instant slot) {}

    /**
     * What becomes of the findings' state now.
     *
     * @param rows the exceptions of the result with their cells
     */
    public void apply(Writing by, List<Move> moves, Columns columns, Rows rows) {
        var opened = new HashMap<Digest, Move.Opened>();
        var altered = new HashMap<Digest, Move.Altered>();
        var changed = new ArrayList<FindingRecord>();
        for (Move move : moves) {
            switch (move) {
                case Move.Opened it -> opened.put(it.sighting().key(), it);
                case Move.Altered it -> altered.put(it.sighting().key(), it);
                case Move.Missed it -> changed.add(stayed(it.before().id(), it));
                case Move.WithoutData it -> changed.add(stayed(it.before().id(), it));
                case Move.Cleared it -> changed.add(moved(by, it.before().id(), it));
                case Move.Forgotten it -> changed.add(moved(by, it.before().id(), it));
                case Move.PassedBy it -> changed.add(moved(by, it.before().id(), it));
            }
        }
        if (!opened.isEmpty()) {
            FindingCopy.write(
                    db,
                    lines -> rows.forEach(
                            opened::containsKey,
                            row -> lines.accept(
                                    line(by, Objects.requireNonNull(opened.get(row.key())), row, columns))));
        }
        if (!altered.isEmpty()) {
            rows.forEach(altered::containsKey, row -> {
                changed.add(altered(by, Objects.requireNonNull(altered.get(row.key())), row, columns));
                if (changed.size() >= BATCH) update(changed);
            });
        }
        update(changed);
        recordEvents(by, moves);
    }

    private void update(List<FindingRecord> changed) {
        batches(changed).forEach(some -> db.batchUpdate(some).execute());
        changed.clear();
    }

    private static FindingCopy.Line line(Writing by, Move.Opened move, Sighting row, Columns columns) {
        return new FindingCopy.Line(
                by.ruleId().toString(),
                row.key().asUuid().toString(),
                Json.cells(row.identity()).data(),
                move.now().state().name(),
                move.now().severity().name(),
                move.now().fingerprint().asUuid().toString(),
                by.slot(),
                Json.row(columns, row.row()).data(),
                move.now().held());
    }

    private static FindingRecord altered(Writing by, Move.Altered move, Sighting row, Columns columns) {
        var record = moved(by, move.before().id(), move);
        if (opens(move)) record.setOpenedAt(by.slot());
        record.setRow(Json.row(columns, row.row()));
        return record;
    }

    /** Back in sight, or back within the guard, it is the same affair still. */
    private static boolean opens(Move.Altered move) {
        State was = move.before().now().state();
        return move.anew() || (was == State.PENDING && move.now().state() == State.OPEN);
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
        var better = move.now().better();
        row.setBetterOrdinal(better == null ? null : better.ordinal());
        row.setBetterSlot(better == null ? null : better.slot());
        row.setNoData(move.now().noData());
        return row;
    }

    /** What is the same of many events but for the finding. */
    private record Kind(String kind, Severity severity) {}

    private void recordEvents(Writing by, List<Move> moves) {
        var ids = idsByKey(by.ruleId(), moves);
        var events = new HashMap<Kind, List<Long>>();
        for (Move move : moves) {
            Long id = move instanceof Move.Opened it
                    ? ids.get(it.sighting().key())
                    : move.earlier().map(Known::id).orElse(null);
            events.computeIfAbsent(new Kind(kindOf(move), move.now().severity()), _ -> new ArrayList<>())
                    .add(Objects.requireNonNull(id));
        }
        events.forEach((kind, findings) -> record(by, kind, findings, null));
    }

    /** One statement for many findings. */
    private void record(Writing by, Kind kind, List<Long> findings, @Nullable UUID messageId) {
        for (var some : batches(findings)) {
            db.insertInto(FINDING_EVENT)
                    .columns(
                            FINDING_EVENT.FINDING_ID,
                            FINDING_EVENT.CHECK_ID,
                            FINDING_EVENT.SLOT,
                            FINDING_EVENT.KIND,
                            FINDING_EVENT.SEVERITY,
                            FINDING_EVENT.MESSAGE_ID)
                    .select(select(
                                    FINDING.ID,
                                    val(by.checkId()),
                                    val(by.slot()),
                                    val(kind.kind()),
                                    val(kind.severity(), FINDING.SEVERITY),
                                    val(messageId, UUID.class))
                            .from(FINDING)
                            .where(FINDING.ID.eq(any(some.toArray(Long[]::new)))))
                    .execute();
        }
    }

    private static String kindOf(Move move) {
        boolean pending = move.now().state() == State.PENDING;
        return switch (move) {
            case Move.Opened _ -> pending ? "pending" : "opened";
            case Move.Altered(var before, var _, var now, var anew)
            when before.now().state() != now.state() -> {
                if (pending) yield "pending again";
                yield switch (before.now().state()) {
                    case PENDING -> "opened";
                    case OUT_OF_SIGHT -> "back in sight";
                    case CLEARED -> anew ? "opened again" : "back within the guard";
                    case OPEN -> throw new IllegalStateException("open before and after: " + before);
                };
            }
            case Move.Altered(var before, var _, var now, var _)
            when before.now().severity() != now.severity() -> "severity changed";
            case Move.Altered _ -> "values changed";
            case Move.Missed _ -> "missed";
            case Move.WithoutData _ -> "no data";
            case Move.Forgotten _ -> "forgotten while pending";
            case Move.Cleared _ -> "cleared";
            case Move.PassedBy _ -> "out of sight";
        };
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
        moveReported(by, audience, messageId, ids(told));
        var events = new HashMap<Kind, List<Long>>();
        for (var telling : told) {
            String kinds = String.join(", ", codes(telling.kinds()));
            String kind = kinds.isEmpty() ? "reported" : "reported as " + kinds;
            events.computeIfAbsent(new Kind(kind, telling.severity()), _ -> new ArrayList<>())
                    .add(telling.finding());
        }
        events.forEach((kind, findings) -> record(by, kind, findings, messageId));
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
                            REPORT.BEFORE_TOLD_AT,
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
                                    REPORTED.TOLD_AT,
                                    REPORTED.MESSAGE_ID)
                            .from(FINDING)
                            .leftJoin(REPORTED)
                            .on(REPORTED.FINDING_ID.eq(FINDING.ID), REPORTED.AUDIENCE_ID.eq(audience))
                            .where(FINDING.ID.eq(any(some.toArray(Long[]::new)))))
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
        for (var some : batches(findings)) {
            db.insertInto(FINDING_EVENT)
                    .columns(
                            FINDING_EVENT.FINDING_ID,
                            FINDING_EVENT.CHECK_ID,
                            FINDING_EVENT.SLOT,
                            FINDING_EVENT.KIND,
                            FINDING_EVENT.SEVERITY)
                    .select(select(FINDING.ID, val(by.checkId()), val(by.slot()), inline("let pass"), FINDING.SEVERITY)
                            .from(FINDING)
                            .where(FINDING.ID.eq(any(some.toArray(Long[]::new)))))
                    .execute();
        }
    }

    /** The difference of exactly these findings stands for a later check to tell. */
    public void stand(UUID ruleId, List<Long> findings) {
        var ids = findings.toArray(Long[]::new);
        db.update(FINDING)
                .set(FINDING.STANDING, false)
                .where(FINDING.RULE_ID.eq(ruleId), FINDING.STANDING.isTrue(), FINDING.ID.ne(all(ids)))
                .execute();
        db.update(FINDING)
                .set(FINDING.STANDING, true)
                .where(FINDING.ID.eq(any(ids)), FINDING.STANDING.isFalse())
                .execute();
    }

    public record EndedMark(long finding, Marks.Kind kind) {}

    /** The marks are what people said; that what is so now has ended them is added. */
    public void endMarks(Writing by, List<EndedMark> ended) {
        for (var mark : ended) {
            db.update(MARK)
                    .set(MARK.ENDED_AT, by.slot())
                    .set(MARK.ENDED_CHECK, by.checkId())
                    .where(MARK.FINDING_ID.eq(mark.finding()), MARK.KIND.eq(mark.kind()), MARK.ENDED_AT.isNull())
                    .execute();
            db.insertInto(FINDING_EVENT)
                    .set(FINDING_EVENT.FINDING_ID, mark.finding())
                    .set(FINDING_EVENT.CHECK_ID, by.checkId())
                    .set(FINDING_EVENT.SLOT, by.slot())
                    .set(FINDING_EVENT.KIND, mark.kind().code() + " ended")
                    .set(
                            FINDING_EVENT.SEVERITY,
                            select(FINDING.SEVERITY).from(FINDING).where(FINDING.ID.eq(mark.finding())))
                    .execute();
        }
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
                            REPORTED.TOLD_AT,
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
                                    // Let pass, last told stays where it was.
                                    messageId == null ? REPORTED.TOLD_AT : val(by.slot()),
                                    val(messageId, UUID.class))
                            .from(FINDING)
                            .leftJoin(REPORTED)
                            .on(REPORTED.FINDING_ID.eq(FINDING.ID), REPORTED.AUDIENCE_ID.eq(audience))
                            .where(FINDING.ID.eq(any(some.toArray(Long[]::new)))))
                    .onConflict(REPORTED.FINDING_ID, REPORTED.AUDIENCE_ID)
                    .doUpdate()
                    .setAllToExcluded()
                    .execute();
        }
    }
}
