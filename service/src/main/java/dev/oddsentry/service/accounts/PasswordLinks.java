package dev.oddsentry.service.accounts;

import static dev.oddsentry.service.db.generated.Tables.PASSWORD_LINK;

import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.secrets.Hashes;
import dev.oddsentry.service.secrets.RandomText;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Links that set a person's password, once: 256 random bits, kept as a hash. A person has one at a time. */
@Component
class PasswordLinks {
    private static final Duration FOR_INVITATION = Duration.ofDays(7);
    private static final Duration FOR_FORGOTTEN = Duration.ofHours(1);
    /** A mailbox is not filled by somebody who asks again and again. */
    private static final Duration PAUSE = Duration.ofMinutes(2);

    private final DSLContext db;
    private final Clock clock;
    private final People people;

    PasswordLinks(DSLContext db, Clock clock, People people) {
        this.db = db;
        this.clock = clock;
        this.people = people;
    }

    record IssuedLink(String token, Instant expiresAt) {}

    /** Whether the person was sent one just now. */
    boolean isRecent(Person of) {
        return db.fetchExists(
                PASSWORD_LINK,
                PASSWORD_LINK.PERSON_ID.eq(of.id()),
                PASSWORD_LINK.CREATED_AT.gt(clock.instant().minus(PAUSE)));
    }

    /** Those before it lead nowhere any more. */
    @Transactional
    public IssuedLink issue(Person of, boolean invitation) {
        db.deleteFrom(PASSWORD_LINK)
                .where(PASSWORD_LINK.PERSON_ID.eq(of.id()).or(PASSWORD_LINK.EXPIRES_AT.le(clock.instant())))
                .execute();
        String token = RandomText.make();
        Instant expiresAt = clock.instant().plus(invitation ? FOR_INVITATION : FOR_FORGOTTEN);
        db.insertInto(PASSWORD_LINK)
                .set(PASSWORD_LINK.HASH, Hashes.of(token))
                .set(PASSWORD_LINK.PERSON_ID, of.id())
                .set(PASSWORD_LINK.INVITATION, invitation)
                .set(PASSWORD_LINK.CREATED_AT, clock.instant())
                .set(PASSWORD_LINK.EXPIRES_AT, expiresAt)
                .execute();
        return new IssuedLink(token, expiresAt);
    }

    /**
     * Part of the caller's transaction: if that fails, the link can be used again.
     *
     * @throws RefusedException if it has been used, has expired, never was, or belongs to somebody who has been disabled
     */
    Person use(String token) {
        var taken = db.deleteFrom(PASSWORD_LINK)
                .where(PASSWORD_LINK.HASH.eq(Hashes.of(token)), PASSWORD_LINK.EXPIRES_AT.gt(clock.instant()))
                .returning(PASSWORD_LINK.PERSON_ID)
                .fetchOne();
        return (taken == null ? Optional.<Person>empty() : people.active(taken.getPersonId()))
                .orElseThrow(() -> RefusedException.invalid(
                        "This link has been used or has expired. Ask for a new one on the log-in page."));
    }

    void removeAll(Person of) {
        db.deleteFrom(PASSWORD_LINK).where(PASSWORD_LINK.PERSON_ID.eq(of.id())).execute();
    }
}
