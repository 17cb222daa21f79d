package dev.oddsentry.service.audit;

import static dev.oddsentry.service.db.generated.Tables.AUDIT_EVENT;

import java.time.Clock;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes who did what, in the transaction of the act. */
@Component
public class Audit {
    private final Clock clock;

    Audit(Clock clock) {
        this.clock = clock;
    }

    /** @param person null where the service acted by itself */
    public void record(DSLContext tx, @Nullable UUID person, AuditAct act, String subject, @Nullable String detail) {
        tx.insertInto(AUDIT_EVENT)
                .set(AUDIT_EVENT.AT, clock.instant())
                .set(AUDIT_EVENT.PERSON_ID, person)
                .set(AUDIT_EVENT.ACT, act)
                .set(AUDIT_EVENT.SUBJECT, subject)
                .set(AUDIT_EVENT.DETAIL, detail)
                .execute();
    }
}
