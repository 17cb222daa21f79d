package dev.oddsentry.service.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.Move;
import dev.oddsentry.core.memory.NewsKind;
import dev.oddsentry.core.memory.Sighting;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.db.Json;
import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes findings that a check opens, with what was told of them at once, and their first event: two lines for each, whatever the number. */
@Component
public class Opening {
    private final DSLContext db;

    Opening(DSLContext db) {
        this.db = db;
    }

    /**
     * What an audience hears of a finding at the very check that opens it.
     *
     * @param messageId null where it is let pass
     * @param kinds empty where it is let pass
     */
    public record Heard(long audience, @Nullable UUID messageId, Set<NewsKind> kinds) {
        private String event() {
            return messageId == null ? "let pass" : FindingEvents.reported(kinds);
        }
    }

    /**
     * @param heard of those that are open and told or let pass; not of those that only stand
     * @return their numbers by key
     */
    Map<Digest, Long> write(
            MemoryWriter.Writing by,
            Map<Digest, Move.Opened> opened,
            Map<Digest, Heard> heard,
            Columns columns,
            MemoryWriter.Rows rows) {
        var ids = ids(opened.keySet());
        TableCopy.write(
                db,
                "finding (id, rule_id, copy_key, key, identity, state, severity, fingerprint, opened_at, changed_at, row,"
                        + " held_ordinal, held_slot, split_value, no_data, heard_by, heard_told, heard_message)",
                copy -> rows.forEach(opened::containsKey, row -> {
                    var move = Objects.requireNonNull(opened.get(row.key()));
                    finding(copy, by, move, row, columns, rows, ids, heard.get(row.key()));
                }));
        TableCopy.write(
                db,
                "finding_event (finding_id, check_id, slot, kind, severity, message_id, heard)",
                copy -> opened.forEach((key, move) -> {
                    var told = heard.get(key);
                    copy.cell(ids.get(key))
                            .cell(by.checkId())
                            .cell(by.slot())
                            .cell(MemoryWriter.kindOf(move))
                            .cell(move.now().severity())
                            .cell(told == null ? null : told.messageId())
                            .cell(told == null ? null : told.event())
                            .end();
                }));
        return ids;
    }

    private static void finding(
            TableCopy copy,
            MemoryWriter.Writing by,
            Move.Opened move,
            Sighting row,
            Columns columns,
            MemoryWriter.Rows rows,
            Map<Digest, Long> ids,
            @Nullable Heard heard) {
        var held = move.now().held();
        copy.cell(ids.get(row.key()))
                .cell(by.ruleId())
                .cell(by.scope().copy())
                .cell(row.key().asUuid())
                .cell(Json.cells(row.identity()).data())
                .cell(move.now().state())
                .cell(move.now().severity())
                .cell(move.now().fingerprint().asUuid())
                .cell(by.slot())
                .cell(by.slot())
                .cell(Json.row(columns, row.row()).data())
                .cell(held == null ? null : held.ordinal())
                .cell(held == null ? null : held.slot())
                .cell(rows.audienceOf(row).split())
                .cell(false)
                .cell(heard == null ? null : heard.audience())
                .cell(heard != null && heard.messageId() != null)
                .cell(heard == null ? null : heard.messageId())
                .end();
    }

    /** Numbers are drawn beforehand, so that nothing has to be read back. */
    private Map<Digest, Long> ids(Set<Digest> keys) {
        var number = DSL.field("nextval(pg_get_serial_sequence('finding', 'id'))", Long.class);
        var ids = HashMap.<Digest, Long>newHashMap(keys.size());
        try (var drawn = db.select(number)
                .from(DSL.generateSeries(1, keys.size()))
                .fetchSize(Batches.MOST)
                .fetchLazy()) {
            for (var key : keys)
                ids.put(key, Objects.requireNonNull(drawn.fetchNext()).value1());
        }
        return ids;
    }
}
