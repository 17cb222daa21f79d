package dev.oddsentry.service.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.DigestTable;
import dev.oddsentry.core.memory.CurrentFinding;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.Moves;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.ids.AudienceId;
import dev.oddsentry.service.ids.MessageId;
import java.time.Clock;
import java.util.Objects;
import java.util.Set;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes findings that a check opens, with what was reported at once, and their first event: two lines for each, whatever the number. */
@Component
public class NewFindingWriter {
    private final DSLContext db;
    private final Clock clock;

    NewFindingWriter(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /**
     * What an audience gets of a finding at the check that opens it.
     *
     * @param messageId null if it is treated as known
     * @param kinds empty if it is treated as known
     */
    public record Heard(AudienceId audience, @Nullable MessageId messageId, Set<UpdateKind> kinds) {
        private FindingEventKind event() {
            return messageId == null ? FindingEventKind.TREATED_AS_KNOWN : FindingEventKind.REPORTED;
        }

        /** As PostgreSQL reads an array. */
        private @Nullable String updates() {
            return kinds.isEmpty() ? null : "{" + String.join(",", FindingEvents.codes(kinds)) + "}";
        }
    }

    /** The opening report; null for a finding that stays unreported or has a row of its own for its last report. */
    public interface AtOpening {
        @Nullable
        Heard of(Digest key, AudienceKey at);
    }

    /** The numbers of the findings that a check opened, by key. */
    public static final class Ids {
        private final DigestTable places;
        private final long[] ids;

        private Ids(DigestTable places, long[] ids) {
            this.places = places;
            this.ids = ids;
        }

        /** @throws IllegalStateException if the check did not open it */
        public long of(Digest key) {
            int place = (int) places.get(key);
            if (place < 0) throw new IllegalStateException("the check did not open " + key);
            return ids[place];
        }
    }

    Ids write(MemoryWriter.Writing by, Moves moves, AtOpening heard, Columns columns, MemoryWriter.Rows rows) {
        int opened = moves.opened();
        var places = new DigestTable(opened);
        for (int i = 0; i < opened; i++) places.put(moves.key(i), i);
        long[] ids = ids(opened);
        if (opened == 0) return new Ids(places, ids);
        var told = new @Nullable Heard[opened];
        TableCopy.write(
                db,
                "finding (id, rule_id, copy_key, key, identity, state, severity, fingerprint, opened_at, changed_at, row,"
                        + " lasting_ordinal, lasting_slot, split_value, no_data, opening_audience, opening_reported, opening_message)",
                copy -> rows.forEach(places::has, row -> {
                    int place = (int) places.get(row.key());
                    var at = rows.audienceOf(row);
                    var now = moves.get(place).now();
                    told[place] = now.state() == FindingState.OPEN ? heard.of(row.key(), at) : null;
                    finding(copy, by, ids[place], now, row, columns, at, told[place]);
                }));
        var recorded = clock.instant();
        TableCopy.write(
                db,
                "finding_event (at, finding_id, check_id, slot, kind, severity, message_id, at_opening, updates)",
                copy -> {
                    for (int i = 0; i < opened; i++) {
                        var move = moves.get(i);
                        var of = told[i];
                        copy.cell(recorded)
                                .cell(ids[i])
                                .cell(by.checkId())
                                .cell(by.slot())
                                .cell(MemoryWriter.kindOf(move))
                                .cell(move.now().severity())
                                .cell(of == null ? null : of.messageId())
                                .cell(of == null ? null : of.event())
                                .cell(of == null ? null : of.updates())
                                .end();
                    }
                });
        return new Ids(places, ids);
    }

    private static void finding(
            TableCopy copy,
            MemoryWriter.Writing by,
            long id,
            CurrentFinding now,
            EvaluatedRow row,
            Columns columns,
            AudienceKey at,
            @Nullable Heard heard) {
        var held = now.held();
        copy.cell(id)
                .cell(by.ruleId())
                .cell(by.scope().copy())
                .cell(row.key().asUuid())
                .cell(Json.cells(row.identity()).data())
                .cell(now.state())
                .cell(now.severity())
                .cell(now.fingerprint().asUuid())
                .cell(by.slot())
                .cell(by.slot())
                .cell(Json.row(columns, row.row()).data())
                .cell(held == null ? null : held.ordinal())
                .cell(held == null ? null : held.slot())
                .cell(at.split())
                .cell(false)
                .cell(heard == null ? null : heard.audience())
                .cell(heard != null && heard.messageId() != null)
                .cell(heard == null ? null : heard.messageId())
                .end();
    }

    /** Numbers are drawn beforehand, so that nothing has to be read back. */
    private long[] ids(int count) {
        long[] ids = new long[count];
        if (count == 0) return ids;
        var number = DSL.field("nextval(pg_get_serial_sequence('finding', 'id'))", Long.class);
        try (var drawn = db.select(number)
                .from(DSL.generateSeries(1, count))
                .fetchSize(Batches.MOST)
                .fetchLazy()) {
            for (int i = 0; i < count; i++)
                ids[i] = Objects.requireNonNull(drawn.fetchNext()).value1();
        }
        return ids;
    }
}
