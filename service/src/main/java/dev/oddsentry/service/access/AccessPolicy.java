package dev.oddsentry.service.access;

import static dev.oddsentry.service.db.generated.Tables.ACCESS_POLICY;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.people.Person;
import java.time.Clock;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Whether what a team owns is changed by its members alone. Until an operator says so, every analyst changes everything. */
@Component
public class AccessPolicy {
    private final DSLContext db;
    private final Clock clock;
    private final Audit audit;

    AccessPolicy(DSLContext db, Clock clock, Audit audit) {
        this.db = db;
        this.clock = clock;
        this.audit = audit;
    }

    public boolean teamsDecide() {
        return db.fetchSingle(ACCESS_POLICY).getTeamsDecide();
    }

    @Transactional
    public void save(Person by, boolean teamsDecide) {
        db.update(ACCESS_POLICY)
                .set(ACCESS_POLICY.TEAMS_DECIDE, teamsDecide)
                .set(ACCESS_POLICY.CHANGED_AT, clock.instant())
                .execute();
        audit.record(
                db,
                by.id(),
                AuditAct.SAVE_ACCESS_POLICY,
                "teams decide",
                teamsDecide ? "members of the owning team only" : "every analyst");
    }
}
