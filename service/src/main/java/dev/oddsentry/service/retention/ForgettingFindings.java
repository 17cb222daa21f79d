package dev.oddsentry.service.retention;

import static dev.oddsentry.service.db.generated.Tables.ESCALATED;
import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static dev.oddsentry.service.db.generated.Tables.FORGOTTEN;
import static dev.oddsentry.service.db.generated.Tables.HANDLING;
import static dev.oddsentry.service.db.generated.Tables.LAST_REPORT;
import static dev.oddsentry.service.db.generated.Tables.REPORT;
import static dev.oddsentry.service.db.generated.Tables.RULE;
import static org.jooq.impl.DSL.any;
import static org.jooq.impl.DSL.notExists;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.selectOne;
import static org.jooq.impl.DSL.val;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.schedules.Schedules;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Forgets findings that are over: cleared and heard of, or out of sight for longer than any window of their rule reaches back. Those
 * that a person has marked, or that have something to tell, stay. A check that runs meanwhile becomes stale.
 */
@Component
class ForgettingFindings {
    private static final int AT_ONCE = 5_000;
    private static final Duration MARGIN = Duration.ofDays(30);

    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Schedules schedules;
    private final TransactionTemplate transactions;
    private final Settings.Retention kept;
    private final Clock clock;

    ForgettingFindings(
            DSLContext db,
            DefinitionStore definitions,
            Schedules schedules,
            TransactionTemplate transactions,
            Settings settings,
            Clock clock) {
        this.db = db;
        this.definitions = definitions;
        this.schedules = schedules;
        this.transactions = transactions;
        this.kept = settings.retention();
        this.clock = clock;
    }

    long forget() {
        return definitions.rulesEver().stream().mapToLong(this::forget).sum();
    }

    private long forget(Current<RuleDefinition> rule) {
        Instant now = clock.instant();
        Instant cleared = now.minus(Duration.ofDays(kept.findings()));
        Instant agedOut = now.minus(agedOut(rule.definition(), now));
        var which = FINDING.RULE_ID
                .eq(rule.ruleId())
                .and(FINDING.UNREPORTED.isFalse())
                .and(FINDING.STATE
                        .eq(FindingState.CLEARED)
                        .and(FINDING.CHANGED_AT.lt(cleared))
                        .or(FINDING.STATE.eq(FindingState.AGED_OUT).and(FINDING.CHANGED_AT.lt(agedOut))))
                .and(notExists(selectOne()
                        .from(HANDLING)
                        .where(HANDLING.FINDING_ID.eq(FINDING.ID), HANDLING.ENDED_AT.isNull())));
        long forgotten = 0;
        for (int some = AT_ONCE; some == AT_ONCE; forgotten += some) some = forgetSome(rule.ruleId(), which, now);
        return forgotten;
    }

    /** As the rule says, else as the operator; never so soon that its window could still bring the row back. */
    private Duration agedOut(RuleDefinition rule, Instant now) {
        var stated = rule.memory().forgetAfter();
        if (stated != null) return stated.exact();
        var usual = Duration.ofDays(kept.agedOut());
        var query = definitions.query(rule.query());
        if (query.isEmpty()) return usual;
        var window = Parameters.window(
                        schedules.moment(rule, now), rule, query.get().definition())
                .orElse(Duration.ZERO)
                .plus(MARGIN);
        return window.compareTo(usual) > 0 ? window : usual;
    }

    private int forgetSome(RuleId ruleId, Condition which, Instant now) {
        Integer gone = transactions.execute(_ -> {
            if (!db.fetchExists(FINDING, which)) return 0;
            db.select(RULE.ID).from(RULE).where(RULE.ID.eq(ruleId)).forUpdate().fetch();
            var ids = db.select(FINDING.ID)
                    .from(FINDING)
                    .where(which)
                    .limit(AT_ONCE)
                    .fetch(FINDING.ID)
                    .toArray(Long[]::new);
            if (ids.length == 0) return 0;
            db.insertInto(FORGOTTEN)
                    .columns(
                            FORGOTTEN.RULE_ID,
                            FORGOTTEN.KEY,
                            FORGOTTEN.STATE,
                            FORGOTTEN.OPENED_AT,
                            FORGOTTEN.CHANGED_AT,
                            FORGOTTEN.FORGOTTEN_AT)
                    .select(select(
                                    FINDING.RULE_ID,
                                    FINDING.KEY,
                                    FINDING.STATE,
                                    FINDING.OPENED_AT,
                                    FINDING.CHANGED_AT,
                                    val(now))
                            .from(FINDING)
                            .where(FINDING.ID.eq(any(ids))))
                    .onConflict(FORGOTTEN.RULE_ID, FORGOTTEN.KEY)
                    .doUpdate()
                    .setAllToExcluded()
                    .execute();
            db.deleteFrom(REPORT).where(REPORT.FINDING_ID.eq(any(ids))).execute();
            db.deleteFrom(LAST_REPORT)
                    .where(LAST_REPORT.FINDING_ID.eq(any(ids)))
                    .execute();
            db.deleteFrom(FINDING_EVENT)
                    .where(FINDING_EVENT.FINDING_ID.eq(any(ids)))
                    .execute();
            db.deleteFrom(ESCALATED).where(ESCALATED.FINDING_ID.eq(any(ids))).execute();
            db.deleteFrom(HANDLING).where(HANDLING.FINDING_ID.eq(any(ids))).execute();
            db.deleteFrom(FINDING).where(FINDING.ID.eq(any(ids))).execute();
            db.update(RULE)
                    .set(RULE.MEMORY_EPOCH, RULE.MEMORY_EPOCH.plus(1))
                    .where(RULE.ID.eq(ruleId))
                    .execute();
            return ids.length;
        });
        return gone == null ? 0 : gone;
    }
}
