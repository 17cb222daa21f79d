package dev.oddsentry.service.people;

import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static dev.oddsentry.service.db.generated.Tables.TEAM;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import java.time.Clock;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** The teams that own rules, and where they are reached. A team that nobody entered is reached through the operators. */
@Component
public class Teams {
    private final DSLContext db;
    private final Audit audit;
    private final Clock clock;

    Teams(DSLContext db, Audit audit, Clock clock) {
        this.db = db;
        this.audit = audit;
        this.clock = clock;
    }

    public record Team(String name, List<String> addresses) {}

    public List<Team> all() {
        return db.selectFrom(TEAM)
                .orderBy(TEAM.NAME)
                .fetch(row -> new Team(row.getName(), List.of(row.getAddresses())));
    }

    public List<String> names() {
        return all().stream().map(Team::name).toList();
    }

    public List<String> allAddresses() {
        return all().stream().flatMap(team -> team.addresses().stream()).toList();
    }

    /** Those of the operators for a team that nobody entered. */
    public List<String> addressesOf(String team) {
        return db.select(TEAM.ADDRESSES)
                .from(TEAM)
                .where(TEAM.NAME.eq(team))
                .fetchOptional(row -> List.of(row.value1()))
                .orElseGet(() -> db.select(PERSON.EMAIL)
                        .from(PERSON)
                        .where(PERSON.ROLE.eq(Role.OPERATOR), PERSON.ACTIVE.isTrue())
                        .fetch(PERSON.EMAIL));
    }

    @Transactional
    public Team save(Person by, String name, List<String> addresses) {
        db.insertInto(TEAM)
                .set(TEAM.NAME, name)
                .set(TEAM.ADDRESSES, addresses.toArray(String[]::new))
                .set(TEAM.UPDATED_AT, clock.instant())
                .onConflict(TEAM.NAME)
                .doUpdate()
                .setAllToExcluded()
                .execute();
        audit.record(db, by.id(), AuditAct.SAVE_TEAM, name, String.join(", ", addresses));
        return new Team(name, addresses);
    }
}
