package dev.oddsentry.service.accounts;

import dev.oddsentry.service.access.AccessPolicy;
import dev.oddsentry.service.access.LogInEnds;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.People.NewPerson;
import dev.oddsentry.service.people.People.UserView;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Adds, invites, disables and enables people, and sets their passwords. */
@Component
public class Accounts {
    private static final Logger LOG = LoggerFactory.getLogger(Accounts.class);

    private static final String OFF = "Passwords are off. Users log in through an identity provider.";

    private static final String SERVICE = "A service account has no password. Create a token for it.";

    private final DSLContext db;
    private final People people;
    private final PasswordLinks links;
    private final AccountMail mail;
    private final LogInEnds logInEnds;
    private final AccessPolicy policy;
    private final Audit audit;
    private final TransactionTemplate tx;

    Accounts(
            DSLContext db,
            People people,
            PasswordLinks links,
            AccountMail mail,
            LogInEnds logInEnds,
            AccessPolicy policy,
            Audit audit,
            TransactionTemplate tx) {
        this.db = db;
        this.people = people;
        this.links = links;
        this.mail = mail;
        this.logInEnds = logInEnds;
        this.policy = policy;
        this.audit = audit;
        this.tx = tx;
    }

    /**
     * @param password null to send an invitation; where passwords are off nothing is sent
     * @throws RefusedException if the login is taken, the password too weak, or the invitation could not be sent; the person is added then, too
     */
    public UserView add(Person by, NewPerson added, @Nullable String password) {
        boolean passwords = policy.present().passwords();
        if (password != null && added.service()) throw RefusedException.invalid(SERVICE);
        if (added.details().email().isBlank() && !added.service())
            throw RefusedException.invalid("email: a user who is a person needs an address.");
        if (password != null && !passwords) throw RefusedException.invalid(OFF + " Leave the password out.");
        people.add(by, added, password);
        if (password == null && passwords && !added.service()) invite(by, added.login());
        return people.view(added.login());
    }

    /**
     * Sends a link that sets the password; earlier ones lead nowhere any more.
     *
     * @throws RefusedException if it could not be sent, with the mail server's words
     */
    public void invite(Person by, String login) {
        var person = people.active(people.require(login).id())
                .orElseThrow(() -> RefusedException.conflict("\"" + login + "\" is disabled. Enable the user first."));
        requirePassword(person);
        var _ = person.mailAddress();
        var link = links.issue(person, true);
        audit.record(db, by.id(), AuditAct.INVITE_PERSON, person.login(), person.email());
        mail.send(person, link, true).ifPresent(why -> {
            throw RefusedException.unavailable("The invitation to " + person.email() + " could not be sent: " + why
                    + " " + person.name() + " has an account; send the invitation again later.");
        });
    }

    /** Sends a link, if there is such a person. Neither the answer nor its time says whether there is. */
    public void sendForgotten(String loginOrAddress) {
        Thread.ofVirtual().name("password-link").start(() -> {
            try {
                people.called(loginOrAddress)
                        .filter(person ->
                                !links.isRecent(person) && !person.email().isBlank())
                        .filter(policy::allowsPassword)
                        // A password would be a way past the identity provider that answers for them.
                        .filter(person ->
                                people.view(person.login()).providers().isEmpty() || people.hasPassword(person))
                        .ifPresent(this::sendForgotten);
            } catch (RuntimeException failed) {
                LOG.error("A link for a new password could not be sent", failed);
            }
        });
    }

    private void sendForgotten(Person person) {
        var link = links.issue(person, false);
        audit.record(db, person.id(), AuditAct.ASK_FOR_PASSWORD_LINK, person.login(), null);
        mail.send(person, link, false)
                .ifPresent(why -> LOG.warn("The link for a new password of {} was not sent: {}", person.login(), why));
    }

    /**
     * Sets the password of the person whom the link was sent to, and ends all they were logged in with.
     *
     * @throws RefusedException if the link leads nowhere any more or the password is too weak; the link still works in the latter case
     */
    @Transactional
    public void setByLink(String token, String password) {
        var person = links.use(token);
        requirePassword(person);
        people.setPassword(person, password);
        logInEnds.end(person, null);
    }

    /**
     * Their own; ends their other sessions and all their tokens.
     *
     * @param session that stays; null for none
     */
    @Transactional
    public void changePassword(Person of, String password, @Nullable String session) {
        requirePassword(of);
        people.setPassword(of, password);
        links.removeAll(of);
        logInEnds.end(of, session);
    }

    private void requirePassword(Person of) {
        if (people.isService(of)) throw RefusedException.conflict(SERVICE);
        if (!policy.allowsPassword(of)) throw RefusedException.conflict(OFF);
    }

    /** At once: sessions, tokens and links end. */
    public UserView disable(Person by, String login) {
        tx.executeWithoutResult(_ -> {
            var person = people.setActive(by, login, false);
            links.removeAll(person);
            logInEnds.end(person, null);
        });
        return people.view(login);
    }

    public UserView enable(Person by, String login) {
        people.setActive(by, login, true);
        return people.view(login);
    }
}
