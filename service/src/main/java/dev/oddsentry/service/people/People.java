package dev.oddsentry.service.people;

import static dev.oddsentry.service.db.generated.Tables.IDENTITY_PROVIDER;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static dev.oddsentry.service.db.generated.Tables.PROVIDER_IDENTITY;
import static org.jooq.impl.DSL.array;
import static org.jooq.impl.DSL.noCondition;
import static org.jooq.impl.DSL.select;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.TreeSet;
import java.util.UUID;
import org.jooq.Condition;
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
    private final Memberships memberships;
    private final Operators operators;
    private final Passwords passwords = new Passwords();

    People(DSLContext db, Clock clock, Audit audit, Memberships memberships, Operators operators, Settings settings) {
        this.db = db;
        this.clock = clock;
        this.audit = audit;
        this.memberships = memberships;
        this.operators = operators;
        makeFirstOperator(settings.firstOperator());
    }

    private void makeFirstOperator(Settings.FirstOperator first) {
        if (db.fetchExists(PERSON)) return;
        if (first.password() == null) {
            LOG.warn("Nobody can log in yet: set oddsentry.first-operator.password and start again.");
            return;
        }
        insert(
                new NewPerson(first.login(), new PersonDetails(first.name(), first.email(), Role.OPERATOR, List.of())),
                first.password());
    }

    /** @param teams by name */
    public record PersonDetails(String name, String email, Role role, List<String> teams) {}

    /** @param service whether it is a program, which logs in with tokens alone */
    public record NewPerson(String login, PersonDetails details, boolean service) {
        public NewPerson(String login, PersonDetails details) {
            this(login, details, false);
        }
    }

    /**
     * @param active false for one who may not log in
     * @param service whether it is a program, which logs in with tokens alone
     * @param invited whether they have no way to log in yet: neither a password nor an identity provider that knows them
     * @param providers the titles of the identity providers that they have logged in through
     * @param lastLogInAt null for never, or before this was kept
     */
    public record UserView(
            String login,
            String name,
            String email,
            Role role,
            List<String> teams,
            boolean active,
            boolean service,
            boolean invited,
            List<String> providers,
            @Nullable Instant lastLogInAt) {}

    /**
     * @param password as typed; null for one who will be invited to set it
     * @throws RefusedException if the login is taken or the password is too weak
     */
    @Transactional
    public Person add(Person by, NewPerson added, @Nullable String password) {
        if (password != null) Passwords.check(added.login(), password);
        if (insert(added, password) == 0)
            throw RefusedException.conflict("The log-in name \"" + added.login() + "\" is taken.");
        var person = require(added.login());
        memberships.put(person.id(), added.details().teams());
        audit.record(db, by.id(), AuditAct.ADD_PERSON, added.login(), words(added.details()));
        return require(added.login());
    }

    private int insert(NewPerson added, @Nullable String password) {
        var details = added.details();
        return db.insertInto(PERSON)
                .set(PERSON.ID, UUID.randomUUID())
                .set(PERSON.LOGIN, added.login().toLowerCase(Locale.ROOT))
                .set(PERSON.NAME, details.name())
                .set(PERSON.EMAIL, details.email())
                .set(PERSON.PASSWORD_HASH, password == null ? null : passwords.hash(password))
                .set(PERSON.ROLE, details.role())
                .set(PERSON.IS_SERVICE, added.service())
                .set(PERSON.CREATED_AT, clock.instant())
                .onConflict(PERSON.LOGIN)
                .doNothing()
                .execute();
    }

    /** @throws RefusedException if nobody would be left to manage the service, or a team is not known */
    @Transactional
    public UserView change(Person by, String login, PersonDetails details) {
        var before = view(login);
        if (details.email().isBlank() && !before.email().isBlank() && !before.service())
            throw RefusedException.invalid("email: a user who is a person needs an address.");
        operators.lock();
        put(require(login), details);
        operators.requireOne();
        audit.record(
                db,
                by.id(),
                AuditAct.CHANGE_PERSON,
                before.login(),
                words(new PersonDetails(before.name(), before.email(), before.role(), before.teams())) + " → "
                        + words(details));
        return view(login);
    }

    /**
     * Somebody whom an identity provider vouches for, without a password. Part of the caller's transaction.
     *
     * @return the person; with a number behind the log-in name if that is taken
     */
    public Person addVouchedFor(NewPerson added, String provider) {
        String login = added.login();
        for (int number = 2; insert(new NewPerson(login, added.details()), null) == 0; number++)
            login = added.login() + "-" + number;
        memberships.put(require(login).id(), added.details().teams());
        audit.record(db, null, AuditAct.ADD_PERSON, login, words(added.details()) + ", by " + provider);
        return require(login);
    }

    /**
     * What an identity provider says of somebody at a log-in. The last operator stays one. Part of the caller's transaction.
     *
     * @return the person as they are then
     */
    public Person updateVouchedFor(Person person, PersonDetails said, String provider) {
        operators.lock();
        boolean stays = said.role() != Role.OPERATOR && operators.needs(person);
        var details = stays ? new PersonDetails(said.name(), said.email(), person.role(), said.teams()) : said;
        // In an order of our own, as those are that were said.
        var teams = List.copyOf(new TreeSet<>(person.teams()));
        var before = new PersonDetails(person.name(), person.email(), person.role(), teams);
        if (details.equals(before)) return person;
        put(person, details);
        audit.record(
                db,
                null,
                AuditAct.CHANGE_PERSON,
                person.login(),
                words(before) + " → " + words(details) + ", by " + provider);
        return require(person.login());
    }

    private void put(Person person, PersonDetails details) {
        db.update(PERSON)
                .set(PERSON.NAME, details.name())
                .set(PERSON.EMAIL, details.email())
                .set(PERSON.ROLE, details.role())
                .where(PERSON.ID.eq(person.id()))
                .execute();
        memberships.put(person.id(), details.teams());
    }

    /** @return the person, who no longer may log in; or may again */
    @Transactional
    public Person setActive(Person by, String login, boolean active) {
        if (!active && by.login().equals(login.toLowerCase(Locale.ROOT)))
            throw RefusedException.invalid("You cannot disable yourself. Ask another operator.");
        var person = require(login);
        operators.lock();
        db.update(PERSON)
                .set(PERSON.ACTIVE, active)
                .where(PERSON.ID.eq(person.id()))
                .execute();
        operators.requireOne();
        audit.record(
                db, by.id(), active ? AuditAct.ENABLE_PERSON : AuditAct.DISABLE_PERSON, person.login(), person.name());
        return person;
    }

    /** @throws RefusedException if it is too weak */
    @Transactional
    public void setPassword(Person of, String password) {
        Passwords.check(of.login(), password);
        db.update(PERSON)
                .set(PERSON.PASSWORD_HASH, passwords.hash(password))
                .where(PERSON.ID.eq(of.id()))
                .execute();
        audit.record(db, of.id(), AuditAct.SET_PASSWORD, of.login(), null);
    }

    /** Whether it is a program and no person. */
    public boolean isService(Person person) {
        return db.fetchExists(PERSON, PERSON.ID.eq(person.id()), PERSON.IS_SERVICE.isTrue());
    }

    public boolean hasPassword(Person person) {
        return db.fetchExists(PERSON, PERSON.ID.eq(person.id()), PERSON.PASSWORD_HASH.isNotNull());
    }

    /** The person, if the password is theirs. */
    public Optional<Person> authenticate(String login, String password) {
        String hash = db.select(PERSON.PASSWORD_HASH)
                .from(PERSON)
                .where(PERSON.LOGIN.eq(login.toLowerCase(Locale.ROOT)), PERSON.ACTIVE.isTrue())
                .fetchOne(PERSON.PASSWORD_HASH);
        return passwords.matches(password, hash)
                ? find(PERSON.LOGIN.eq(login.toLowerCase(Locale.ROOT)))
                : Optional.empty();
    }

    public void loggedIn(Person person) {
        db.update(PERSON)
                .set(PERSON.LAST_LOG_IN_AT, clock.instant())
                .where(PERSON.ID.eq(person.id()))
                .execute();
    }

    /** The person as they are now; empty for one who is not there or has been disabled. */
    public Optional<Person> active(UUID id) {
        return find(PERSON.ID.eq(id));
    }

    /** Also one who has been disabled. */
    public Person byId(UUID id) {
        return fetch(PERSON.ID.eq(id)).getFirst();
    }

    /** Also one who has been disabled. */
    public Optional<Person> withLogin(String login) {
        return fetch(PERSON.LOGIN.eq(login)).stream().findFirst();
    }

    /** Also one who has been disabled; empty if several have the address. */
    public Optional<Person> withAddress(String address) {
        var found = fetch(PERSON.EMAIL.equalIgnoreCase(address).and(Operators.isPerson()));
        return found.size() == 1 ? Optional.of(found.getFirst()) : Optional.empty();
    }

    /** Who may log in and has this log-in name or this address; empty if nobody, or several. */
    public Optional<Person> called(String loginOrAddress) {
        String lower = loginOrAddress.strip().toLowerCase(Locale.ROOT);
        var found = fetch(PERSON.ACTIVE
                .isTrue()
                .and(Operators.isPerson())
                .and(PERSON.LOGIN.eq(lower).or(PERSON.EMAIL.equalIgnoreCase(lower))));
        return found.size() == 1 ? Optional.of(found.getFirst()) : Optional.empty();
    }

    /**
     * Also one who has been disabled.
     *
     * @throws RefusedException if there is none
     */
    public Person require(String login) {
        return withLogin(login.toLowerCase(Locale.ROOT))
                .orElseThrow(() -> RefusedException.notFound("There is no user \"" + login + "\"."));
    }

    private Optional<Person> find(Condition which) {
        return fetch(PERSON.ACTIVE.isTrue().and(which)).stream().findFirst();
    }

    /** Where a person is reached; empty for one who is not there, or no longer, or has no address. */
    public Optional<String> addressOf(String login) {
        return find(PERSON.LOGIN.eq(login.toLowerCase(Locale.ROOT)))
                .map(Person::email)
                .filter(address -> !address.isBlank());
    }

    public List<String> logins() {
        return all().stream().map(Person::login).toList();
    }

    /** Those who may log in. */
    public List<Person> all() {
        return fetch(PERSON.ACTIVE.isTrue());
    }

    private List<Person> fetch(Condition which) {
        var teams = Memberships.teamsOfPerson();
        return db.select(PERSON.ID, PERSON.LOGIN, PERSON.NAME, PERSON.EMAIL, PERSON.ROLE, teams)
                .from(PERSON)
                .where(which)
                .orderBy(PERSON.NAME)
                .fetch(row -> new Person(
                        row.value1(), row.value2(), row.value3(), row.value4(), row.value5(), List.of(row.value6())));
    }

    public UserView view(String login) {
        return views(PERSON.LOGIN.eq(login.toLowerCase(Locale.ROOT))).stream()
                .findFirst()
                .orElseThrow(() -> RefusedException.notFound("There is no user \"" + login + "\"."));
    }

    /** @param disabledToo also those who may no longer log in */
    public List<UserView> views(boolean disabledToo) {
        return views(disabledToo ? noCondition() : PERSON.ACTIVE.isTrue());
    }

    private List<UserView> views(Condition which) {
        var teams = Memberships.teamsOfPerson();
        var providers = array(select(IDENTITY_PROVIDER.TITLE)
                .from(PROVIDER_IDENTITY)
                .join(IDENTITY_PROVIDER)
                .on(IDENTITY_PROVIDER.ID.eq(PROVIDER_IDENTITY.PROVIDER_ID))
                .where(PROVIDER_IDENTITY.PERSON_ID.eq(PERSON.ID))
                .groupBy(IDENTITY_PROVIDER.TITLE)
                .orderBy(IDENTITY_PROVIDER.TITLE));
        return db.select(PERSON.fields())
                .select(teams, providers)
                .from(PERSON)
                .where(which)
                .orderBy(PERSON.ACTIVE.desc(), PERSON.NAME)
                .fetch(row -> new UserView(
                        row.get(PERSON.LOGIN),
                        row.get(PERSON.NAME),
                        row.get(PERSON.EMAIL),
                        row.get(PERSON.ROLE),
                        List.of(row.get(teams)),
                        row.get(PERSON.ACTIVE),
                        row.get(PERSON.IS_SERVICE),
                        !row.get(PERSON.IS_SERVICE)
                                && row.get(PERSON.PASSWORD_HASH) == null
                                && row.get(providers).length == 0,
                        List.of(row.get(providers)),
                        row.get(PERSON.LAST_LOG_IN_AT)));
    }

    private static String words(PersonDetails details) {
        String teams = details.teams().isEmpty() ? "no team" : String.join(", ", details.teams());
        return details.name() + " <" + details.email() + ">, "
                + details.role().name().toLowerCase(Locale.ROOT) + ", " + teams;
    }
}
