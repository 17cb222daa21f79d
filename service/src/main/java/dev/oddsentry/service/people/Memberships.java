package dev.oddsentry.service.people;

import static dev.oddsentry.service.db.generated.Tables.MEMBERSHIP;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static dev.oddsentry.service.db.generated.Tables.TEAM;
import static org.jooq.impl.DSL.array;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.selectOne;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.web.RefusedException;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.TreeSet;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Who is in which team. */
@Component
public class Memberships {
    private final DSLContext db;
    private final Audit audit;

    Memberships(DSLContext db, Audit audit) {
        this.db = db;
        this.audit = audit;
    }

    /** The teams of the person of the surrounding query, by name. */
    static Field<String[]> teamsOfPerson() {
        return array(select(MEMBERSHIP.TEAM)
                .from(MEMBERSHIP)
                .where(MEMBERSHIP.PERSON_ID.eq(PERSON.ID))
                .orderBy(MEMBERSHIP.TEAM));
    }

    /**
     * Part of the caller's transaction.
     *
     * @throws RefusedException if a team is not known
     */
    void put(UUID person, Collection<String> teams) {
        for (String team : teams) requireTeam(team);
        db.deleteFrom(MEMBERSHIP)
                .where(MEMBERSHIP.PERSON_ID.eq(person), MEMBERSHIP.TEAM.notIn(teams))
                .execute();
        for (String team : teams) insert(person, team);
    }

    public List<String> membersOf(String team) {
        return db.select(PERSON.LOGIN)
                .from(MEMBERSHIP)
                .join(PERSON)
                .on(PERSON.ID.eq(MEMBERSHIP.PERSON_ID))
                .where(MEMBERSHIP.TEAM.eq(team), PERSON.ACTIVE.isTrue())
                .orderBy(PERSON.LOGIN)
                .fetch(PERSON.LOGIN);
    }

    /**
     * Who is in a team from now on. Users who have been disabled stay in it.
     *
     * @throws RefusedException if the team or a log-in name is not known
     */
    @Transactional
    public List<String> putMembers(Person by, String team, Collection<String> logins) {
        requireTeam(team);
        var wanted = new TreeSet<String>();
        logins.forEach(login -> wanted.add(login.strip().toLowerCase(Locale.ROOT)));
        var known = db.select(PERSON.LOGIN, PERSON.ID)
                .from(PERSON)
                .where(PERSON.LOGIN.in(wanted), PERSON.ACTIVE.isTrue())
                .fetchMap(PERSON.LOGIN, PERSON.ID);
        for (String login : wanted)
            if (!known.containsKey(login)) throw RefusedException.invalid("There is no user \"" + login + "\".");
        db.deleteFrom(MEMBERSHIP)
                .where(MEMBERSHIP.TEAM.eq(team), MEMBERSHIP.PERSON_ID.notIn(known.values()))
                .andExists(selectOne().from(PERSON).where(PERSON.ID.eq(MEMBERSHIP.PERSON_ID), PERSON.ACTIVE.isTrue()))
                .execute();
        known.values().forEach(person -> insert(person, team));
        audit.record(db, by.id(), AuditAct.SAVE_TEAM, team, "members: " + String.join(", ", wanted));
        return membersOf(team);
    }

    private void insert(UUID person, String team) {
        db.insertInto(MEMBERSHIP)
                .set(MEMBERSHIP.PERSON_ID, person)
                .set(MEMBERSHIP.TEAM, team)
                .onConflictDoNothing()
                .execute();
    }

    private void requireTeam(String team) {
        if (!db.fetchExists(TEAM, TEAM.NAME.eq(team)))
            throw RefusedException.invalid("There is no team \"" + team + "\". Save the team first.");
    }
}
