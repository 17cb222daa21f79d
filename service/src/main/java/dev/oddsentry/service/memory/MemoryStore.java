package dev.oddsentry.service.memory;

import static dev.oddsentry.service.db.generated.Tables.AUDIENCE;
import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.REPORTED;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.Known;
import dev.oddsentry.core.memory.Now;
import dev.oddsentry.core.memory.Patience;
import dev.oddsentry.core.memory.Reported;
import dev.oddsentry.service.db.Json;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Reads memory: what is so now and what was last reported. */
@Component
public class MemoryStore {
    private final DSLContext db;

    MemoryStore(DSLContext db) {
        this.db = db;
    }

    /** @param lastReportSlot null while it was never told anything */
    public record Audience(long id, @Nullable Instant lastReportSlot) {}

    /** The rule's audience; empty before its first good check. */
    public Optional<Audience> audience(UUID ruleId) {
        return db.select(AUDIENCE.ID, AUDIENCE.LAST_REPORT_SLOT)
                .from(AUDIENCE)
                .where(AUDIENCE.RULE_ID.eq(ruleId))
                .fetchOptional(row -> new Audience(row.value1(), row.value2()));
    }

    /** Every finding of the rule with what its audience was last told. */
    public List<Known> known(UUID ruleId) {
        return db.select(
                        FINDING.ID,
                        FINDING.KEY,
                        FINDING.STATE,
                        FINDING.SEVERITY,
                        FINDING.FINGERPRINT,
                        FINDING.HELD_ORDINAL,
                        FINDING.HELD_SLOT,
                        FINDING.MISSED_ORDINAL,
                        FINDING.MISSED_SLOT,
                        FINDING.NO_DATA,
                        REPORTED.STATE,
                        REPORTED.SEVERITY,
                        REPORTED.FINGERPRINT)
                .from(FINDING)
                .leftJoin(REPORTED)
                .on(REPORTED.FINDING_ID.eq(FINDING.ID))
                .where(FINDING.RULE_ID.eq(ruleId))
                .fetch(row -> new Known(
                        row.value1(),
                        Digest.of(row.value2()),
                        new Now(
                                row.value3(),
                                row.value4(),
                                Digest.of(row.value5()),
                                start(row.value6(), row.value7()),
                                start(row.value8(), row.value9()),
                                row.value10()),
                        row.value11() == null
                                ? null
                                : new Reported(row.value11(), row.value12(), Digest.of(row.value13()))));
    }

    private static Patience.@Nullable Start start(@Nullable Long ordinal, @Nullable Instant slot) {
        return ordinal == null || slot == null ? null : new Patience.Start(ordinal, slot);
    }

    /** Last rows by finding, cells by column name. */
    public Map<Long, Map<String, @Nullable Object>> lastRows(Collection<Long> findings) {
        return db.select(FINDING.ID, FINDING.ROW)
                .from(FINDING)
                .where(FINDING.ID.in(findings))
                .fetchMap(FINDING.ID, row -> Json.row(row.value2()));
    }

    /** The rows as they were last reported, by finding. */
    public Map<Long, Map<String, @Nullable Object>> reportedRows(Collection<Long> findings) {
        return db.select(REPORTED.FINDING_ID, REPORTED.ROW)
                .from(REPORTED)
                .where(REPORTED.FINDING_ID.in(findings))
                .fetchMap(REPORTED.FINDING_ID, row -> Json.row(row.value2()));
    }
}
