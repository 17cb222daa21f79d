package dev.oddsentry.service.incidents;

import static dev.oddsentry.service.db.generated.Tables.INCIDENT;
import static dev.oddsentry.service.db.generated.Tables.INCIDENT_RULE;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.val;

import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.failures.IncidentKind;
import dev.oddsentry.service.ids.RuleId;
import java.time.Clock;
import java.time.Instant;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What incidents the checks, by cause. Each method is part of the transaction of the check that it is about. */
@Component
public class Incidents {
    /** @param name of the source, the rule or the address; empty where the kind has none */
    public record Cause(IncidentKind kind, String name) {}

    private final DSLContext db;
    private final Clock clock;

    Incidents(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /** The check succeeded, and its result had no rows, of which the owning team wants a notice. */
    public void noRows(String rule, RuleId ruleId) {
        hit(new Cause(IncidentKind.NO_ROWS, rule), ruleId, null, "The result had no rows.");
    }

    /**
     * @param cause failures of one cause make one mail
     * @param reason in words, with what the source or the server said
     */
    public void failed(Cause cause, RuleId ruleId, FailureKind failure, String reason) {
        hit(cause, ruleId, failure, reason);
    }

    private void hit(Cause cause, RuleId ruleId, @Nullable FailureKind failure, String reason) {
        Instant now = clock.instant();
        db.insertInto(INCIDENT)
                .set(INCIDENT.KIND, cause.kind())
                .set(INCIDENT.NAME, cause.name())
                .set(INCIDENT.BEGAN_AT, now)
                .onConflict(INCIDENT.KIND, INCIDENT.NAME)
                .where(INCIDENT.OVER_AT.isNull())
                .doNothing()
                .execute();
        db.insertInto(INCIDENT_RULE)
                .columns(
                        INCIDENT_RULE.INCIDENT_ID,
                        INCIDENT_RULE.RULE_ID,
                        INCIDENT_RULE.FAILURES,
                        INCIDENT_RULE.FAILURE,
                        INCIDENT_RULE.REASON,
                        INCIDENT_RULE.LAST_AT)
                .select(select(
                                INCIDENT.ID,
                                val(ruleId, INCIDENT_RULE.RULE_ID),
                                val(1),
                                val(failure, INCIDENT_RULE.FAILURE),
                                val(reason),
                                val(now))
                        .from(INCIDENT)
                        .where(
                                INCIDENT.KIND.eq(cause.kind()),
                                INCIDENT.NAME.eq(cause.name()),
                                INCIDENT.OVER_AT.isNull()))
                .onConflict(INCIDENT_RULE.INCIDENT_ID, INCIDENT_RULE.RULE_ID)
                .doUpdate()
                .set(INCIDENT_RULE.FAILURES, INCIDENT_RULE.FAILURES.plus(1))
                .set(INCIDENT_RULE.FAILURE, failure)
                .set(INCIDENT_RULE.REASON, reason)
                .set(INCIDENT_RULE.LAST_AT, now)
                .setNull(INCIDENT_RULE.RECOVERED_AT)
                .execute();
    }

    /** A good check of the rule: whatever troubled it is over for it. */
    public void well(RuleId ruleId) {
        db.update(INCIDENT_RULE)
                .set(INCIDENT_RULE.RECOVERED_AT, clock.instant())
                .where(INCIDENT_RULE.RULE_ID.eq(ruleId), INCIDENT_RULE.RECOVERED_AT.isNull())
                .execute();
    }
}
