package dev.oddsentry.service.access;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Person;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Log-ins and refused ones, in the audit: who, from where. Never what was typed as a password. */
@Component
public class LogIns {
    private final DSLContext db;
    private final Audit audit;
    private final People people;

    LogIns(DSLContext db, Audit audit, People people) {
        this.people = people;
        this.db = db;
        this.audit = audit;
    }

    public void succeeded(Person person, String from, AuditAct act) {
        people.loggedIn(person);
        audit.record(db, person.id(), act, person.login(), "from " + from);
    }

    /** @param login as it was typed, cut to sixty characters */
    public void failed(String login, String from) {
        audit.record(db, null, AuditAct.LOG_IN_REFUSED, printable(login), "from " + from);
    }

    private static String printable(String login) {
        String clean = login.replaceAll("\\p{Cntrl}", "?");
        return clean.length() <= 60 ? clean : clean.substring(0, 60);
    }
}
