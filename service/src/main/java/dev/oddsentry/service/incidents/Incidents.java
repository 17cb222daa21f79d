package dev.oddsentry.service.incidents;

import static dev.oddsentry.service.db.generated.Tables.INCIDENT;
import static dev.oddsentry.service.db.generated.Tables.INCIDENT_RULE;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.val;

import java.time.Clock;
import java.time.Instant;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** What incidents the checks, by cause. Each method is part of the transaction of the check that it is about. */
@Component
public class Incidents {
    private static final String NO_ROWS = "no rows from ";

    private final DSLContext db;
    private final Clock clock;

    Incidents(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /** The check succeeded, and its result had no rows, of which the owning team wants a notice. */
    public void noRows(String rule, UUID ruleId) {
        failed(NO_ROWS + rule, ruleId, "The result had no rows.");
    }

    static boolean isNoRows(String cause) {
        return cause.startsWith(NO_ROWS);
    }

    /** @param cause such as {@code source ferry}, or the rule's own; failures of one cause make one mail */
    public void failed(String cause, UUID ruleId, String reason) {
        Instant now = clock.instant();
        db.insertInto(INCIDENT)
                .set(INCIDENT.CAUSE, cause)
                .set(INCIDENT.BEGAN_AT, now)
                .onConflict(INCIDENT.CAUSE)
                .where(INCIDENT.OVER_AT.isNull())
                .doNothing()
                .execute();
        db.insertInto(INCIDENT_RULE)
                .columns(
                        INCIDENT_RULE.INCIDENT_ID,
                        INCIDENT_RULE.RULE_ID,
                        INCIDENT_RULE.FAILURES,
                        INCIDENT_RULE.REASON,
                        INCIDENT_RULE.LAST_AT)
                .select(select(INCIDENT.ID, val(ruleId), val(1), val(reason), val(now))
                        .from(INCIDENT)
                        .where(INCIDENT.CAUSE.eq(cause), INCIDENT.OVER_AT.isNull()))
                .onConflict(INCIDENT_RULE.INCIDENT_ID, INCIDENT_RULE.RULE_ID)
                .doUpdate()
                .set(INCIDENT_RULE.FAILURES, INCIDENT_RULE.FAILURES.plus(1))
                .set(INCIDENT_RULE.REASON, reason)
                .set(INCIDENT_RULE.LAST_AT, now)
                .setNull(INCIDENT_RULE.RECOVERED_AT)
                .execute();
    }

    /** A good check of the rule: whatever troubled it is over for it. */
    public void well(UUID ruleId) {
        db.update(INCIDENT_RULE)
                .set(INCIDENT_RULE.RECOVERED_AT, clock.instant())
                .where(INCIDENT_RULE.RULE_ID.eq(ruleId), INCIDENT_RULE.RECOVERED_AT.isNull())
                .execute();
    }
}
