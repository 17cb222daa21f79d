package dev.oddsentry.service.api.findings;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static dev.oddsentry.service.db.generated.Tables.LAST_REPORT;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static org.jooq.impl.DSL.lateral;
import static org.jooq.impl.DSL.max;
import static org.jooq.impl.DSL.select;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.extracts.csv.CsvTable;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.explanations.EventWords;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** All of a rule's memory, streamed: its findings, or the events of them. */
@Component
class FindingExport {
    private static final int FETCH_SIZE = 2_000;

    private final DSLContext db;

    FindingExport(DSLContext db) {
        this.db = db;
    }

    @Transactional(readOnly = true)
    public void findings(Current<RuleDefinition> rule, boolean json, OutputStream out) throws IOException {
        ZoneId zone = rule.definition().zone();
        // Whichever audience heard last.
        var heard = select(
                        max(LAST_REPORT.AT).as(LAST_REPORT.AT),
                        max(LAST_REPORT.REPORTED_AT).as(LAST_REPORT.REPORTED_AT))
                .from(LAST_REPORT)
                .where(LAST_REPORT.FINDING_ID.eq(FINDING.ID))
                .asTable(LAST_REPORT.getName());
        try (var rows = db.select(FINDING.fields())
                .select(heard.fields())
                .from(FINDING, lateral(heard))
                .where(FINDING.RULE_ID.eq(rule.ruleId()))
                .orderBy(FINDING.ID)
                .fetchSize(FETCH_SIZE)
                .fetchLazy()) {
            write(rows.stream().map(row -> finding(row, zone)), json, out);
        }
    }

    private static Map<String, @Nullable String> finding(Record row, ZoneId zone) {
        var record = new LinkedHashMap<String, @Nullable String>();
        record.put("finding", String.valueOf(row.get(FINDING.ID)));
        record.put("identity", CellText.joined(Json.cells(row.get(FINDING.IDENTITY)), zone));
        record.put("state", word(row.get(FINDING.STATE)));
        record.put("severity", row.get(FINDING.SEVERITY).word());
        record.put("opened at", text(row.get(FINDING.OPENED_AT)));
        record.put("changed at", text(row.get(FINDING.CHANGED_AT)));
        boolean asOpened = row.get(FINDING.OPENING_AUDIENCE) != null;
        record.put("reported at", text(row.get(asOpened ? FINDING.OPENED_AT : LAST_REPORT.AT)));
        boolean toldAtOpening = row.get(FINDING.OPENING_REPORTED);
        record.put("reported at", text(row.get(toldAtOpening ? FINDING.OPENED_AT : LAST_REPORT.REPORTED_AT)));
        record.put("copy", row.get(FINDING.COPY_KEY));
        record.put("split value", row.get(FINDING.SPLIT_VALUE));
        record.put("unreported update", String.valueOf(row.get(FINDING.UNREPORTED)));
        Json.row(row.get(FINDING.ROW))
                .forEach((column, cell) -> record.put("row: " + column, cell == null ? null : CellText.of(cell, zone)));
        return record;
    }

    @Transactional(readOnly = true)
    public void events(Current<RuleDefinition> rule, boolean json, OutputStream out) throws IOException {
        ZoneId zone = rule.definition().zone();
        try (var rows = db.select(
                        FINDING_EVENT.FINDING_ID,
                        FINDING.IDENTITY,
                        FINDING_EVENT.SLOT,
                        FINDING_EVENT.AT,
                        FINDING_EVENT.KIND,
                        FINDING_EVENT.AT_OPENING,
                        FINDING_EVENT.UPDATES,
                        FINDING_EVENT.SEVERITY,
                        FINDING_EVENT.CHECK_ID,
                        FINDING_EVENT.MESSAGE_ID,
                        PERSON.NAME,
                        FINDING_EVENT.NOTE)
                .from(FINDING_EVENT)
                .join(FINDING)
                .on(FINDING.ID.eq(FINDING_EVENT.FINDING_ID))
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(FINDING_EVENT.PERSON_ID))
                .where(FINDING.RULE_ID.eq(rule.ruleId()))
                .orderBy(FINDING_EVENT.ID)
                .fetchSize(FETCH_SIZE)
                .fetchLazy()) {
            write(rows.stream().flatMap(row -> events(row, zone)), json, out);
        }
    }

    /** The opening and its report are in one row. */
    private static Stream<Map<String, @Nullable String>> events(Record row, ZoneId zone) {
        var event = event(row, zone);
        var atOpening = row.get(FINDING_EVENT.AT_OPENING);
        if (atOpening == null) return Stream.of(event);
        var opened = new LinkedHashMap<>(event);
        opened.put("message", null);
        event.put("event", EventWords.brief(atOpening, row.get(FINDING_EVENT.UPDATES)));
        return Stream.of(opened, event);
    }

    private static Map<String, @Nullable String> event(Record row, ZoneId zone) {
        var record = new LinkedHashMap<String, @Nullable String>();
        Instant slot = row.get(FINDING_EVENT.SLOT);
        record.put("finding", String.valueOf(row.get(FINDING_EVENT.FINDING_ID)));
        record.put("identity", CellText.joined(Json.cells(row.get(FINDING.IDENTITY)), zone));
        record.put("at", text(slot == null ? row.get(FINDING_EVENT.AT) : slot));
        record.put("event", EventWords.brief(row.get(FINDING_EVENT.KIND), row.get(FINDING_EVENT.UPDATES)));
        record.put("severity", row.get(FINDING_EVENT.SEVERITY).word());
        record.put("check", text(row.get(FINDING_EVENT.CHECK_ID)));
        record.put("message", text(row.get(FINDING_EVENT.MESSAGE_ID)));
        record.put("person", row.get(PERSON.NAME));
        record.put("note", row.get(FINDING_EVENT.NOTE));
        return record;
    }

    private static String word(Enum<?> state) {
        return state.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    private static @Nullable String text(@Nullable Object value) {
        return value == null ? null : value.toString();
    }

    private static void write(Stream<Map<String, @Nullable String>> records, boolean json, OutputStream out)
            throws IOException {
        var all = records.iterator();
        if (json) {
            out.write('[');
            for (boolean first = true; all.hasNext(); first = false) {
                if (!first) out.write(',');
                out.write('\n');
                out.write(Json.write(all.next()).data().getBytes(StandardCharsets.UTF_8));
            }
            out.write("\n]\n".getBytes(StandardCharsets.UTF_8));
            out.flush();
            return;
        }
        CsvTable table = null;
        List<String> headings = List.of();
        while (all.hasNext()) {
            var record = all.next();
            if (table == null) {
                headings = List.copyOf(record.keySet());
                table = new CsvTable(out, headings);
            }
            table.row(headings.stream()
                    .map(name -> record.getOrDefault(name, null))
                    .map(cell -> cell == null ? "" : cell)
                    .toList());
        }
        if (table == null) table = new CsvTable(out, List.of("finding", "identity"));
        table.end();
    }
}
