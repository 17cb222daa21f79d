package dev.oddsentry.service.people;

import static dev.oddsentry.service.db.generated.Tables.ACCESS_POLICY;
import static dev.oddsentry.service.db.generated.Tables.PERSON;

import dev.oddsentry.service.web.RefusedException;
import java.util.List;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Sees to it that somebody is left who manages the service, and who can log in in an emergency. Part of the caller's transaction. */
@Component
public class Operators {
    private final DSLContext db;

    Operators(DSLContext db) {
        this.db = db;
    }

    /** Where they are reached; in some order that stays. */
    public List<String> addresses() {
        return db.select(PERSON.EMAIL)
                .from(PERSON)
                .where(isOne(), PERSON.EMAIL.ne(""))
                .orderBy(PERSON.EMAIL)
                .fetch(PERSON.EMAIL);
    }

    static Condition isPerson() {
        return PERSON.IS_SERVICE.isFalse();
    }

    private static Condition isOne() {
        return PERSON.ROLE.eq(Role.OPERATOR).and(PERSON.ACTIVE.isTrue()).and(isPerson());
    }

    /** Two operators who remove each other at once wait for one another here. */
    void lock() {
        db.select(PERSON.ID).from(PERSON).where(isOne()).forUpdate().fetch();
    }

    /** Whether nobody else could manage the service, or log in in an emergency. */
    boolean needs(Person person) {
        return isEmergency(person)
                || (person.is(Role.OPERATOR) && !db.fetchExists(PERSON, isOne().and(PERSON.ID.ne(person.id()))));
    }

    /** @throws RefusedException if a change left nobody */
    void requireOne() {
        if (!db.fetchExists(PERSON, isOne()))
            throw RefusedException.invalid(
                    "Nobody would be left to manage the service. Make somebody else an operator first.");
        boolean canLogIn = db.select(ACCESS_POLICY.EMERGENCY_OPERATOR)
                .from(ACCESS_POLICY)
                .where(ACCESS_POLICY.PASSWORDS.isFalse())
                .fetchOptional(ACCESS_POLICY.EMERGENCY_OPERATOR)
                .map(id -> db.fetchExists(PERSON, isOne().and(PERSON.ID.eq(id))))
                .orElse(true);
        if (!canLogIn)
            throw RefusedException.invalid(
                    "Passwords are off, and this is the emergency operator. Name another first.");
    }

    /** Whether the person is named as the one who can log in with a password in any case. */
    public boolean isEmergency(Person person) {
        UUID id = person.id();
        return db.fetchExists(ACCESS_POLICY, ACCESS_POLICY.EMERGENCY_OPERATOR.eq(id));
    }
}
