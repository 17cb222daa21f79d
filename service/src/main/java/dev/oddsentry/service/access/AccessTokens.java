package dev.oddsentry.service.access;

import static dev.oddsentry.service.db.generated.Tables.ACCESS_TOKEN;

import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Person;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Tokens of the command line: 256 random bits, given out once and kept as a SHA-256 hash. */
@Component
public class AccessTokens {
    private static final Duration LIFETIME = Duration.ofDays(30);
    private static final String PREFIX = "odd_";

    private final DSLContext db;
    private final Clock clock;
    private final People people;
    private final SecureRandom random = new SecureRandom();

    AccessTokens(DSLContext db, Clock clock, People people) {
        this.db = db;
        this.people = people;
        this.clock = clock;
    }

    /** @param token shown to its owner this once */
    public record IssuedToken(String token, Instant expiresAt) {}

    @Transactional
    public IssuedToken issue(Person person, String name) {
        Instant now = clock.instant();
        db.deleteFrom(ACCESS_TOKEN).where(ACCESS_TOKEN.EXPIRES_AT.le(now)).execute();
        var bits = new byte[32];
        random.nextBytes(bits);
        String token = PREFIX + Base64.getUrlEncoder().withoutPadding().encodeToString(bits);
        db.insertInto(ACCESS_TOKEN)
                .set(ACCESS_TOKEN.ID, UUID.randomUUID())
                .set(ACCESS_TOKEN.PERSON_ID, person.id())
                .set(ACCESS_TOKEN.NAME, name)
                .set(ACCESS_TOKEN.HASH, hash(token))
                .set(ACCESS_TOKEN.CREATED_AT, now)
                .set(ACCESS_TOKEN.EXPIRES_AT, now.plus(LIFETIME))
                .execute();
        return new IssuedToken(token, now.plus(LIFETIME));
    }

    public Optional<Person> ownerOf(String token) {
        return db.select(ACCESS_TOKEN.PERSON_ID)
                .from(ACCESS_TOKEN)
                .where(ACCESS_TOKEN.HASH.eq(hash(token)), ACCESS_TOKEN.EXPIRES_AT.gt(clock.instant()))
                .fetchOptional(ACCESS_TOKEN.PERSON_ID)
                .flatMap(people::active);
    }

    void revokeAll(Person of) {
        db.deleteFrom(ACCESS_TOKEN).where(ACCESS_TOKEN.PERSON_ID.eq(of.id())).execute();
    }

    public void revoke(String token) {
        db.deleteFrom(ACCESS_TOKEN).where(ACCESS_TOKEN.HASH.eq(hash(token))).execute();
    }

    private static byte[] hash(String token) {
        try {
            return MessageDigest.getInstance("SHA-256").digest(token.getBytes(StandardCharsets.UTF_8));
        } catch (NoSuchAlgorithmException everyJdkHasIt) {
            throw new IllegalStateException(everyJdkHasIt);
        }
    }
}
