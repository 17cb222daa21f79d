package dev.oddsentry.service.memory;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static dev.oddsentry.service.db.generated.Tables.LAST_REPORT;
import static org.jooq.impl.DSL.inline;
import static org.jooq.impl.DSL.noCondition;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.val;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.memory.FindingChange;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.Moves;
import dev.oddsentry.core.memory.StoredFinding;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.FindingRecord;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.RuleId;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import java.util.function.Predicate;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes the current state, in the commit of a check and only what moved. */
@Component
public class MemoryWriter {
    private final DSLContext db;
    private final FindingEvents events;
    private final NewFindingWriter opening;
    private final LastReportWriter reported;
    private final Clock clock;

    MemoryWriter(
            DSLContext db, FindingEvents events, NewFindingWriter opening, LastReportWriter reported, Clock clock) {
        this.db = db;
        this.clock = clock;
        this.events = events;
        this.opening = opening;
        this.reported = reported;
    }

    /** Rows that can be gone through as often as one wants, those of certain keys alone. */
    public interface Rows {
        void forEach(Predicate<Digest> which, Consumer<EvaluatedRow> act);

        /** Whose an exception is. */
        AudienceKey audienceOf(EvaluatedRow exception);
    }

    /** Which check writes, and of what. @param checkId null where a round-up writes, which is no check */
    public record Writing(Scope scope, @Nullable CheckId checkId, Instant slot) {
        public RuleId ruleId() {
            return scope.ruleId();
        }
    }

    /**
     * What becomes of the findings' state now.
     *
     * @param heard the opening report of findings that open
     * @param rows the exceptions of the result with their cells
     * @return the numbers of those that open, by key
     */
    public NewFindingWriter.Ids apply(
            Writing by, Moves moves, NewFindingWriter.AtOpening heard, Columns columns, Rows rows) {
        var altered = new HashMap<Digest, FindingChange.Altered>();
        var changed = new ArrayList<FindingRecord>();
        var others = moves.subList(moves.opened(), moves.size());
        for (FindingChange move : others) {
            switch (move) {
                case FindingChange.Opened opened -> throw new IllegalStateException("not first: " + opened);
                case FindingChange.Altered it -> altered.put(it.evaluatedRow().key(), it);
                case FindingChange.Missed it -> changed.add(stayed(it.before().id(), it));
                case FindingChange.WithoutData it ->
                    changed.add(stayed(it.before().id(), it));
                case FindingChange.Cleared it ->
                    changed.add(moved(by, it.before().id(), it));
                case FindingChange.Forgotten it ->
                    changed.add(moved(by, it.before().id(), it));
                case FindingChange.AgedOut it ->
                    changed.add(moved(by, it.before().id(), it));
            }
        }
        var ids = opening.write(by, moves, heard, columns, rows);
        reported.keepAsRows(others.stream()
                .flatMap(move -> move.earlier().stream())
                .map(StoredFinding::id)
                .toList());
        if (!altered.isEmpty()) {
            rows.forEach(altered::containsKey, row -> {
                changed.add(altered(by, Objects.requireNonNull(altered.get(row.key())), row, columns, rows));
                if (changed.size() >= Batches.MOST) update(changed);
            });
        }
        update(changed);
        recordEvents(by, others);
        return ids;
    }

    /**
     * Clears without a word what nobody looks at any more, since copies were made of the rule, or others, or none.
     *
     * @param copies the keys of the personal copies that there are; empty where the rule has none
     */
    public void endOthers(Writing by, List<String> copies) {
        var isOther = copies.isEmpty()
                ? FINDING.COPY_KEY.isNotNull()
                : FINDING.COPY_KEY.isNull().or(FINDING.COPY_KEY.notIn(copies));
        end(by, isOther);
    }

    /** All findings of the rule end without a message, since it has become a plain report. */
    public void endAll(Writing by) {
        end(by, noCondition());
    }

    private void end(Writing by, Condition which) {
        var others = FINDING.RULE_ID
                .eq(by.ruleId())
                .and(FINDING.STATE.ne(FindingState.CLEARED))
                .and(which);
        db.insertInto(FINDING_EVENT)
                .columns(
                        FINDING_EVENT.AT,
                        FINDING_EVENT.FINDING_ID,
                        FINDING_EVENT.CHECK_ID,
                        FINDING_EVENT.SLOT,
                        FINDING_EVENT.KIND,
                        FINDING_EVENT.SEVERITY)
                .select(select(
                                val(clock.instant(), FINDING_EVENT.AT),
                                FINDING.ID,
                                val(by.checkId(), FINDING_EVENT.CHECK_ID),
                                val(by.slot()),
                                inline(FindingEventKind.CLEARED, FINDING_EVENT.KIND),
                                FINDING.SEVERITY)
                        .from(FINDING)
                        .where(others))
                .execute();
        db.update(LAST_REPORT)
                .set(LAST_REPORT.STATE, FindingState.CLEARED)
                .where(LAST_REPORT.FINDING_ID.in(
                        select(FINDING.ID).from(FINDING).where(others)))
                .execute();
        db.update(FINDING)
                .set(FINDING.STATE, FindingState.CLEARED)
                .set(FINDING.UNREPORTED, false)
                .set(FINDING.CHANGED_AT, by.slot())
                .where(others)
                .execute();
    }

    private void update(List<FindingRecord> changed) {
        Batches.of(changed).forEach(some -> db.batchUpdate(some).execute());
        changed.clear();
    }

    private static FindingRecord altered(
            Writing by, FindingChange.Altered move, EvaluatedRow row, Columns columns, Rows rows) {
        var record = moved(by, move.before().id(), move);
        if (opens(move)) record.setOpenedAt(by.slot());
        record.setRow(Json.row(columns, row.row()));
        record.setSplitValue(rows.audienceOf(row).split());
        return record;
    }

    /** Back in the window, or back before its clearing counted, it is still the same finding. */
    private static boolean opens(FindingChange.Altered move) {
        FindingState was = move.before().now().state();
        return move.restarts() || (was == FindingState.PENDING && move.now().state() == FindingState.OPEN);
    }

    private static FindingRecord moved(Writing by, long id, FindingChange move) {
        var row = new FindingRecord();
        row.setId(id);
        row.changed(FINDING.ID, false);
        return now(row, by, move);
    }

    /** Of one that is as it was, but for what is counted of it. */
    private static FindingRecord stayed(long id, FindingChange move) {
        var row = new FindingRecord();
        row.setId(id);
        row.changed(FINDING.ID, false);
        return counted(row, move);
    }

    private static FindingRecord now(FindingRecord row, Writing by, FindingChange move) {
        row.setState(move.now().state());
        row.setSeverity(move.now().severity());
        row.setFingerprint(move.now().fingerprint().asUuid());
        row.setChangedAt(by.slot());
        return counted(row, move);
    }

    private static FindingRecord counted(FindingRecord row, FindingChange move) {
        var held = move.now().held();
        var missed = move.now().missed();
        row.setLastingOrdinal(held == null ? null : held.ordinal());
        row.setLastingSlot(held == null ? null : held.slot());
        row.setAbsentOrdinal(missed == null ? null : missed.ordinal());
        row.setAbsentSlot(missed == null ? null : missed.slot());
        var better = move.now().better();
        row.setBetterOrdinal(better == null ? null : better.ordinal());
        row.setBetterSlot(better == null ? null : better.slot());
        row.setNoData(move.now().noData());
        return row;
    }

    private void recordEvents(Writing by, List<FindingChange> moves) {
        var byKind = new HashMap<FindingEvents.Kind, List<Long>>();
        for (FindingChange move : moves)
            move.earlier()
                    .ifPresent(before -> byKind.computeIfAbsent(
                                    new FindingEvents.Kind(
                                            kindOf(move), move.now().severity()),
                                    _ -> new ArrayList<>())
                            .add(before.id()));
        byKind.forEach((kind, findings) -> events.record(by, kind, findings, null));
    }

    static FindingEventKind kindOf(FindingChange move) {
        boolean pending = move.now().state() == FindingState.PENDING;
        return switch (move) {
            case FindingChange.Opened _ -> pending ? FindingEventKind.PENDING : FindingEventKind.OPENED;
            case FindingChange.Altered(var before, var _, var now, var restarts)
            when before.now().state() != now.state() -> {
                if (pending) yield FindingEventKind.PENDING_AGAIN;
                yield switch (before.now().state()) {
                    case PENDING -> FindingEventKind.OPENED;
                    case AGED_OUT -> FindingEventKind.BACK_IN_WINDOW;
                    case CLEARED -> restarts ? FindingEventKind.OPENED_AGAIN : FindingEventKind.BACK_BEFORE_CONFIRMED;
                    case OPEN -> throw new IllegalStateException("open before and after: " + before);
                };
            }
            case FindingChange.Altered(var before, var _, var now, var _)
            when before.now().severity() != now.severity() -> FindingEventKind.SEVERITY_CHANGED;
            case FindingChange.Altered _ -> FindingEventKind.VALUES_CHANGED;
            case FindingChange.Missed _ -> FindingEventKind.MISSED;
            case FindingChange.WithoutData _ -> FindingEventKind.NO_DATA;
            case FindingChange.Forgotten _ -> FindingEventKind.FORGOTTEN_WHILE_PENDING;
            case FindingChange.Cleared _ -> FindingEventKind.CLEARED;
            case FindingChange.AgedOut _ -> FindingEventKind.AGED_OUT;
        };
    }
}
