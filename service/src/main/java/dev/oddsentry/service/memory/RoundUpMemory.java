package dev.oddsentry.service.memory;

import static dev.oddsentry.service.db.generated.Tables.AUDIENCE;
import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.LAST_REPORT;
import static org.jooq.impl.DSL.noCondition;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.val;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.LastReport;
import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.memory.StoredFinding;
import dev.oddsentry.service.ids.AudienceId;
import dev.oddsentry.service.ids.RuleId;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * The last reports of round-ups. Each is an audience of every rule in it, whatever the rule's split, and gets the updates
 * since its last report at its own times, when no query runs.
 */
@Component
public class RoundUpMemory {
    private final DSLContext db;
    private final MemoryStore memory;

    RoundUpMemory(DSLContext db, MemoryStore memory) {
        this.db = db;
        this.memory = memory;
    }

    /** A finding and its last report in a round-up. @param reported null if there is none */
    public record Differing(StoredFinding known, @Nullable LastReport reported, Marks marks) {}

    /** Where this round-up is an audience of the rule already. */
    public Optional<LastReportWriter.Audience> audience(UUID roundUp, RuleId rule) {
        return db.select(AUDIENCE.ID)
                .from(AUDIENCE)
                .where(AUDIENCE.RULE_ID.eq(rule), AUDIENCE.ROUND_UP_ID.eq(roundUp))
                .fetchOptional(row -> LastReportWriter.Audience.ofRoundUp(row.value1()));
    }

    /** Makes it an audience of the rule where it is none; what is there, it takes as known. */
    public LastReportWriter.Audience join(UUID roundUp, RuleId rule) {
        var before = audience(roundUp, rule);
        if (before.isPresent()) return before.get();
        AudienceId id = db.insertInto(AUDIENCE)
                .set(AUDIENCE.RULE_ID, rule)
                .set(AUDIENCE.ROUND_UP_ID, roundUp)
                .returning(AUDIENCE.ID)
                .fetchSingle()
                .getId();
        takeAsKnown(id, FINDING.RULE_ID.eq(rule).and(FINDING.COPY_KEY.isNull()));
        return LastReportWriter.Audience.ofRoundUp(id);
    }

    /** It no longer reports other rules than these; if one is added again, its findings are treated as known. */
    public void leaveAllBut(UUID roundUp, List<RuleId> rules) {
        var left = AUDIENCE.ROUND_UP_ID.eq(roundUp).and(AUDIENCE.RULE_ID.notIn(rules));
        db.deleteFrom(LAST_REPORT)
                .where(LAST_REPORT.AUDIENCE_ID.in(
                        select(AUDIENCE.ID).from(AUDIENCE).where(left)))
                .execute();
        db.deleteFrom(AUDIENCE).where(left).execute();
    }

    /** The round-ups that contain the rule. */
    public List<UUID> of(RuleId rule) {
        return db.select(AUDIENCE.ROUND_UP_ID)
                .from(AUDIENCE)
                .where(AUDIENCE.RULE_ID.eq(rule), AUDIENCE.ROUND_UP_ID.isNotNull())
                .fetch(AUDIENCE.ROUND_UP_ID);
    }

    /**
     * Edits and choices apply to round-ups too: what the check changed, or only what it cleared, is treated as known.
     * Called in the commit of the check, once it has moved its findings.
     */
    public void treatMovedAsKnown(Scope scope, Instant slot, PendingEffect pending) {
        if (scope.copy() != null || !(pending.treatsAsKnown() || pending.clearsSilently())) return;
        var moved = FINDING.RULE_ID
                .eq(scope.ruleId())
                .and(FINDING.COPY_KEY.isNull())
                .and(FINDING.CHANGED_AT.eq(slot))
                .and(pending.treatsAsKnown() ? noCondition() : FINDING.STATE.eq(FindingState.CLEARED));
        for (AudienceId audience : db.select(AUDIENCE.ID)
                .from(AUDIENCE)
                .where(AUDIENCE.RULE_ID.eq(scope.ruleId()), AUDIENCE.ROUND_UP_ID.isNotNull())
                .fetch(AUDIENCE.ID)) takeAsKnown(audience, moved);
    }

    private void takeAsKnown(AudienceId audience, Condition which) {
        db.insertInto(LAST_REPORT)
                .columns(
                        LAST_REPORT.FINDING_ID,
                        LAST_REPORT.AUDIENCE_ID,
                        LAST_REPORT.STATE,
                        LAST_REPORT.SEVERITY,
                        LAST_REPORT.FINGERPRINT,
                        LAST_REPORT.ROW,
                        LAST_REPORT.AT)
                .select(select(
                                FINDING.ID,
                                val(audience, LAST_REPORT.AUDIENCE_ID),
                                DSL.when(FINDING.STATE.eq(FindingState.PENDING), FindingState.OPEN)
                                        .otherwise(FINDING.STATE),
                                FINDING.SEVERITY,
                                FINDING.FINGERPRINT,
                                FINDING.ROW,
                                FINDING.CHANGED_AT)
                        .from(FINDING)
                        .where(which))
                .onConflict(LAST_REPORT.FINDING_ID, LAST_REPORT.AUDIENCE_ID)
                .doUpdate()
                .set(LAST_REPORT.STATE, DSL.excluded(LAST_REPORT.STATE))
                .set(LAST_REPORT.SEVERITY, DSL.excluded(LAST_REPORT.SEVERITY))
                .set(LAST_REPORT.FINGERPRINT, DSL.excluded(LAST_REPORT.FINGERPRINT))
                .set(LAST_REPORT.ROW, DSL.excluded(LAST_REPORT.ROW))
                .set(LAST_REPORT.AT, DSL.excluded(LAST_REPORT.AT))
                .setNull(LAST_REPORT.MESSAGE_ID)
                .execute();
    }

    /**
     * Findings whose last report differs from the current state, or that were never reported.
     *
     * @param audience null for one that joins only now, to which everything is known
     * @param openToo whether every open one counts, since a reminder may be due
     */
    public List<Differing> differing(RuleId rule, LastReportWriter.@Nullable Audience audience, boolean openToo) {
        if (audience == null) return List.of();
        var neverReported =
                LAST_REPORT.FINDING_ID.isNull().and(FINDING.STATE.in(FindingState.OPEN, FindingState.AGED_OUT));
        var otherwise = LAST_REPORT
                .FINDING_ID
                .isNotNull()
                .and(FINDING.STATE
                        .ne(LAST_REPORT.STATE)
                        .or(FINDING.SEVERITY.ne(LAST_REPORT.SEVERITY))
                        .or(FINDING.FINGERPRINT.ne(LAST_REPORT.FINGERPRINT)));
        var open = openToo ? FINDING.STATE.eq(FindingState.OPEN) : DSL.falseCondition();
        var marks = memory.marks(Scope.of(rule));
        var found = new ArrayList<Differing>();
        db.select(FINDING.fields())
                .select(LAST_REPORT.STATE, LAST_REPORT.SEVERITY, LAST_REPORT.FINGERPRINT, LAST_REPORT.REPORTED_AT)
                .from(FINDING)
                .leftJoin(LAST_REPORT)
                .on(LAST_REPORT.FINDING_ID.eq(FINDING.ID), LAST_REPORT.AUDIENCE_ID.eq(audience.id()))
                .where(
                        FINDING.RULE_ID.eq(rule),
                        FINDING.COPY_KEY.isNull(),
                        neverReported.or(otherwise).or(open))
                .orderBy(FINDING.ID)
                .forEach(row -> {
                    var finding = row.into(FINDING);
                    var reported = row.get(LAST_REPORT.STATE) == null
                            ? null
                            : new LastReport(
                                    row.get(LAST_REPORT.STATE),
                                    row.get(LAST_REPORT.SEVERITY),
                                    Digest.of(row.get(LAST_REPORT.FINGERPRINT)),
                                    row.get(LAST_REPORT.REPORTED_AT));
                    found.add(new Differing(
                            new StoredFinding(finding.getId(), Digest.of(finding.getKey()), MemoryStore.now(finding)),
                            reported,
                            marks.getOrDefault(finding.getId(), Marks.NONE)));
                });
        return found;
    }

    /** How many findings of the rule are open. */
    public int open(RuleId rule) {
        return db.fetchCount(
                FINDING, FINDING.RULE_ID.eq(rule), FINDING.COPY_KEY.isNull(), FINDING.STATE.eq(FindingState.OPEN));
    }

    /** The rows as last reported in the round-up, by finding. */
    public Map<Long, Map<String, @Nullable Object>> reportedRows(
            LastReportWriter.@Nullable Audience audience, List<Long> findings) {
        return audience == null ? Map.of() : memory.reportedRows(AUDIENCE.ID.eq(audience.id()), findings);
    }
}
