package dev.oddsentry.service.people;

import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static org.jooq.Records.mapping;
import static org.jooq.impl.DSL.noCondition;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** The people who log in. Passwords are kept as salted hashes only. */
@Component
public class People {
    private static final Logger LOG = LoggerFactory.getLogger(People.class);

    private final DSLContext db;
    private final Clock clock;
    private final Audit audit;
    private final Passwords passwords = new Passwords();

    People(DSLContext db, Clock clock, Audit audit, Settings settings) {
        this.db = db;
        this.clock = clock;
        this.audit = audit;
        makeFirstOperator(settings.firstOperator());
    }

    private void makeFirstOperator(Settings.FirstOperator first) {
        if (db.fetchExists(PERSON)) return;
        if (first.password() == null) {
            LOG.warn("Nobody can log in yet: set oddsentry.first-operator.password and start again.");
            return;
        }
        insert(new NewPerson(first.login(), first.name(), first.email(), first.password(), Role.OPERATOR));
    }

    /** Someone to be added; the password as typed. */
    public record NewPerson(String login, String name, String email, String password, Role role) {}

    /** @throws RefusedException if the login is taken or the password is too weak */
    @Transactional
    public Person add(Person by, NewPerson added) {
        Passwords.check(added.login(), added.password());
        if (insert(added) == 0) throw RefusedException.conflict("The log-in name \"" + added.login() + "\" is taken.");
        audit.record(
                db, by.id(), AuditAct.ADD_PERSON, added.login(), added.role().name());
        return find(added.login()).orElseThrow();
    }

    private int insert(NewPerson added) {
        return db.insertInto(PERSON)
                .set(PERSON.ID, UUID.randomUUID())
                .set(PERSON.LOGIN, added.login().toLowerCase(Locale.ROOT))
                .set(PERSON.NAME, added.name())
                .set(PERSON.EMAIL, added.email())
                .set(PERSON.PASSWORD_HASH, passwords.hash(added.password()))
                .set(PERSON.ROLE, added.role())
                .set(PERSON.CREATED_AT, clock.instant())
                .onConflict(PERSON.LOGIN)
                .doNothing()
                .execute();
    }

    /** The person, if the password is theirs. */
    public Optional<Person> authenticate(String login, String password) {
        String hash = db.select(PERSON.PASSWORD_HASH)
                .from(PERSON)
                .where(PERSON.LOGIN.eq(login.toLowerCase(Locale.ROOT)), PERSON.ACTIVE.isTrue())
                .fetchOne(PERSON.PASSWORD_HASH);
        return passwords.matches(password, hash) ? find(login) : Optional.empty();
    }

    private Optional<Person> find(String login) {
        return all(login.toLowerCase(Locale.ROOT)).stream().findFirst();
    }

    /** The person as they are now; empty for one who is not there or has been made inactive. */
    public Optional<Person> active(UUID id) {
        return db.select(PERSON.ID, PERSON.LOGIN, PERSON.NAME, PERSON.EMAIL, PERSON.ROLE)
                .from(PERSON)
                .where(PERSON.ID.eq(id), PERSON.ACTIVE.isTrue())
                .fetchOptional(mapping(Person::new));
    }

    /** Where a person is reached; empty for one who is not there, or no longer. */
    public Optional<String> addressOf(String login) {
        return find(login).map(Person::email);
    }

    public List<String> logins() {
        return all().stream().map(Person::login).toList();
    }

    public List<Person> all() {
        return all(null);
    }

    private List<Person> all(@Nullable String login) {
        return db.select(PERSON.ID, PERSON.LOGIN, PERSON.NAME, PERSON.EMAIL, PERSON.ROLE)
                .from(PERSON)
                .where(PERSON.ACTIVE.isTrue(), login == null ? noCondition() : PERSON.LOGIN.eq(login))
                .orderBy(PERSON.NAME)
                .fetch(mapping(Person::new));
    }
}
