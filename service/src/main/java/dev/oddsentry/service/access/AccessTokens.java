package dev.oddsentry.service.access;

import static dev.oddsentry.service.db.generated.Tables.ACCESS_TOKEN;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static org.jooq.Records.mapping;
import static org.jooq.impl.DSL.noCondition;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Role;
import dev.oddsentry.service.secrets.Hashes;
import dev.oddsentry.service.secrets.RandomText;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Tokens of the command line and of programs: 256 random bits, given out once and kept as a SHA-256 hash. */
@Component
public class AccessTokens {
    private static final Duration LIFETIME = Duration.ofDays(30);
    private static final String PREFIX = "odd_";
    /** Not each use is written down. */
    private static final Duration NOTED_EVERY = Duration.ofMinutes(1);

    private final DSLContext db;
    private final Clock clock;
    private final People people;

    private final Audit audit;

    AccessTokens(DSLContext db, Clock clock, People people, Audit audit) {
        this.audit = audit;
        this.db = db;
        this.people = people;
        this.clock = clock;
    }

    /** @param token shown to its owner this once */
    public record IssuedToken(String token, Instant expiresAt) {}

    /**
     * @param id for revoking it
     * @param lastUsedAt to a minute; null until it is used
     */
    public record TokenView(
            UUID id,
            String login,
            String name,
            TokenScope scope,
            Instant createdAt,
            Instant expiresAt,
            @Nullable Instant lastUsedAt) {}

    /** @param scope what the request may do at most */
    record UsedToken(Person owner, TokenScope scope) {}

    /** The token of a log-in from the command line. */
    public IssuedToken issue(Person person, String name) {
        return issue(person, name, TokenScope.OPERATE, LIFETIME);
    }

    /**
     * Shown in the list of tokens under its name.
     *
     * @param owner who it acts as: the person who makes it, or a service account
     */
    @Transactional
    public IssuedToken create(Person by, Person owner, String name, TokenScope scope, Duration lifetime) {
        var issued = issue(owner, name.strip(), scope, lifetime);
        String what = scope.name().toLowerCase(Locale.ROOT) + ", for " + lifetime.toDays() + " days";
        boolean own = owner.id().equals(by.id());
        audit.record(db, by.id(), AuditAct.CREATE_TOKEN, name.strip(), own ? what : what + ", for " + owner.login());
        return issued;
    }

    private IssuedToken issue(Person person, String name, TokenScope scope, Duration lifetime) {
        Instant now = clock.instant();
        db.deleteFrom(ACCESS_TOKEN).where(ACCESS_TOKEN.EXPIRES_AT.le(now)).execute();
        String token = PREFIX + RandomText.make();
        db.insertInto(ACCESS_TOKEN)
                .set(ACCESS_TOKEN.ID, UUID.randomUUID())
                .set(ACCESS_TOKEN.PERSON_ID, person.id())
                .set(ACCESS_TOKEN.NAME, name)
                .set(ACCESS_TOKEN.HASH, Hashes.of(token))
                .set(ACCESS_TOKEN.SCOPE, scope)
                .set(ACCESS_TOKEN.CREATED_AT, now)
                .set(ACCESS_TOKEN.EXPIRES_AT, now.plus(lifetime))
                .execute();
        return new IssuedToken(token, now.plus(lifetime));
    }

    /** @return empty for a token that is unknown or has expired, or whose owner was disabled */
    Optional<UsedToken> use(String token) {
        Instant now = clock.instant();
        var kept = db.selectFrom(ACCESS_TOKEN)
                .where(ACCESS_TOKEN.HASH.eq(Hashes.of(token)), ACCESS_TOKEN.EXPIRES_AT.gt(now))
                .fetchOne();
        if (kept == null) return Optional.empty();
        var owner = people.active(kept.getPersonId());
        if (owner.isPresent()
                && (kept.getLastUsedAt() == null || kept.getLastUsedAt().isBefore(now.minus(NOTED_EVERY))))
            db.update(ACCESS_TOKEN)
                    .set(ACCESS_TOKEN.LAST_USED_AT, now)
                    .where(ACCESS_TOKEN.ID.eq(kept.getId()))
                    .execute();
        return owner.map(person -> new UsedToken(person, kept.getScope()));
    }

    /** Those that have not expired, the newest first. */
    public List<TokenView> of(Person person) {
        return list(ACCESS_TOKEN.PERSON_ID.eq(person.id()));
    }

    /** Those of all users. */
    public List<TokenView> all() {
        return list(noCondition());
    }

    private List<TokenView> list(Condition which) {
        return db.select(
                        ACCESS_TOKEN.ID,
                        PERSON.LOGIN,
                        ACCESS_TOKEN.NAME,
                        ACCESS_TOKEN.SCOPE,
                        ACCESS_TOKEN.CREATED_AT,
                        ACCESS_TOKEN.EXPIRES_AT,
                        ACCESS_TOKEN.LAST_USED_AT)
                .from(ACCESS_TOKEN)
                .join(PERSON)
                .on(PERSON.ID.eq(ACCESS_TOKEN.PERSON_ID))
                .where(which, ACCESS_TOKEN.EXPIRES_AT.gt(clock.instant()))
                .orderBy(ACCESS_TOKEN.CREATED_AT.desc(), ACCESS_TOKEN.ID)
                .fetch(mapping(TokenView::new));
    }

    /**
     * One's own; an operator's also those of others.
     *
     * @return false if there is none that the person may revoke
     */
    @Transactional
    public boolean revoke(Person by, UUID id) {
        var kept = db.deleteFrom(ACCESS_TOKEN)
                .where(
                        ACCESS_TOKEN.ID.eq(id),
                        by.is(Role.OPERATOR) ? noCondition() : ACCESS_TOKEN.PERSON_ID.eq(by.id()))
                .returning()
                .fetchOne();
        if (kept == null) return false;
        audit.record(db, by.id(), AuditAct.REVOKE_TOKEN, kept.getName(), null);
        return true;
    }

    void revokeAll(Person of) {
        db.deleteFrom(ACCESS_TOKEN).where(ACCESS_TOKEN.PERSON_ID.eq(of.id())).execute();
    }

    public void revoke(String token) {
        db.deleteFrom(ACCESS_TOKEN)
                .where(ACCESS_TOKEN.HASH.eq(Hashes.of(token)))
                .execute();
    }
}
