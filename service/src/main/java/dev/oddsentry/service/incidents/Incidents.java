package dev.oddsentry.service.incidents;

import static dev.oddsentry.service.db.generated.Tables.TROUBLE;
import static dev.oddsentry.service.db.generated.Tables.TROUBLE_RULE;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.val;

import java.time.Clock;
import java.time.Instant;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** What troubles the checks, by cause. Each method is part of the transaction of the check that it is about. */
@Component
public class Incidents {
    private static final String NO_ROWS = "no rows from ";

    private final DSLContext db;
    private final Clock clock;

    Incidents(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /** The check was good, and its result had no rows, of which the owners want to hear. */
    public void noRows(String rule, UUID ruleId) {
        failed(NO_ROWS + rule, ruleId, "The result had no rows.");
    }

    static boolean isNoRows(String cause) {
        return cause.startsWith(NO_ROWS);
    }

    /** @param cause such as {@code source ferry}, or the rule's own; failures of one cause make one mail */
    public void failed(String cause, UUID ruleId, String reason) {
        Instant now = clock.instant();
        db.insertInto(TROUBLE)
                .set(TROUBLE.CAUSE, cause)
                .set(TROUBLE.BEGAN_AT, now)
                .onConflict(TROUBLE.CAUSE)
                .where(TROUBLE.OVER_AT.isNull())
                .doNothing()
                .execute();
        db.insertInto(TROUBLE_RULE)
                .columns(
                        TROUBLE_RULE.TROUBLE_ID,
                        TROUBLE_RULE.RULE_ID,
                        TROUBLE_RULE.FAILURES,
                        TROUBLE_RULE.REASON,
                        TROUBLE_RULE.LAST_AT)
                .select(select(TROUBLE.ID, val(ruleId), val(1), val(reason), val(now))
                        .from(TROUBLE)
                        .where(TROUBLE.CAUSE.eq(cause), TROUBLE.OVER_AT.isNull()))
                .onConflict(TROUBLE_RULE.TROUBLE_ID, TROUBLE_RULE.RULE_ID)
                .doUpdate()
                .set(TROUBLE_RULE.FAILURES, TROUBLE_RULE.FAILURES.plus(1))
                .set(TROUBLE_RULE.REASON, reason)
                .set(TROUBLE_RULE.LAST_AT, now)
                .setNull(TROUBLE_RULE.WELL_AT)
                .execute();
    }

    /** A good check of the rule: whatever troubled it is over for it. */
    public void well(UUID ruleId) {
        db.update(TROUBLE_RULE)
                .set(TROUBLE_RULE.WELL_AT, clock.instant())
                .where(TROUBLE_RULE.RULE_ID.eq(ruleId), TROUBLE_RULE.WELL_AT.isNull())
                .execute();
    }
}
