package dev.oddsentry.service.access;

import static dev.oddsentry.service.db.generated.Tables.DEVICE_REQUEST;

import dev.oddsentry.service.access.AccessTokens.IssuedToken;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.secrets.Hashes;
import dev.oddsentry.service.secrets.RandomText;
import dev.oddsentry.service.web.RefusedException;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/**
 * Logs in a program that has no browser, as RFC 8628 does it: the program shows a code, a person who is logged in types it in the console and says yes, and the
 * program, which asks again and again, gets a token, once.
 */
@Component
public class DeviceLogIns {
    private static final Duration LIFETIME = Duration.ofMinutes(10);
    private static final Duration ASK_EVERY = Duration.ofSeconds(2);
    /** Consonants that are not taken for another, and make no words. */
    private static final String LETTERS = "BCDFGHJKLMNPQRSTVWXZ";

    private static final int CODE_LENGTH = 8;
    /** A whole company may come from one address, that of a proxy. */
    private static final int MOST_OF_ADDRESS = 100;

    private final DSLContext db;
    private final AccessTokens tokens;
    private final People people;
    private final LogIns logIns;
    private final Clock clock;
    private final SecureRandom random = new SecureRandom();

    DeviceLogIns(DSLContext db, AccessTokens tokens, People people, LogIns logIns, Clock clock) {
        this.db = db;
        this.tokens = tokens;
        this.people = people;
        this.logIns = logIns;
        this.clock = clock;
    }

    /**
     * @param deviceCode the program's own, which nobody sees
     * @param userCode what the person types
     * @param expiresIn seconds
     * @param interval seconds between two questions of the program
     */
    public record Started(String deviceCode, String userCode, long expiresIn, long interval) {}

    /**
     * What the person sees who is asked.
     *
     * @param name what the program says of itself
     * @param address where it asked from
     */
    public record AskingProgram(String userCode, String name, String address, Instant begunAt) {}

    /** @param token once the person has said yes */
    public record DeviceLogInState(
            DeviceState state, @Nullable IssuedToken token) {}

    /** How far a log-in is. */
    public enum DeviceState {
        WAITING,
        ALLOWED,
        REFUSED
    }

    /** @throws RefusedException if as many wait from that address as may */
    @Transactional
    public Started begin(String name, String address) {
        db.deleteFrom(DEVICE_REQUEST)
                .where(DEVICE_REQUEST.BEGUN_AT.lt(clock.instant().minus(LIFETIME)))
                .execute();
        if (db.fetchCount(DEVICE_REQUEST, DEVICE_REQUEST.ADDRESS.eq(address)) >= MOST_OF_ADDRESS)
            throw RefusedException.tooMany("Too many log-ins wait for an answer. Try again in ten minutes.");
        String device = RandomText.make();
        String code = code();
        db.insertInto(DEVICE_REQUEST)
                .set(DEVICE_REQUEST.DEVICE_HASH, Hashes.of(device))
                .set(DEVICE_REQUEST.USER_CODE, code)
                .set(DEVICE_REQUEST.NAME, name)
                .set(DEVICE_REQUEST.ADDRESS, address)
                .set(DEVICE_REQUEST.BEGUN_AT, clock.instant())
                .execute();
        return new Started(device, code, LIFETIME.toSeconds(), ASK_EVERY.toSeconds());
    }

    private String code() {
        var code = new StringBuilder();
        for (int i = 0; i < CODE_LENGTH; i++) {
            if (i == CODE_LENGTH / 2) code.append('-');
            code.append(LETTERS.charAt(random.nextInt(LETTERS.length())));
        }
        return code.toString();
    }

    /** @throws RefusedException if no program waits under that code */
    public AskingProgram asking(String userCode) {
        return db.selectFrom(DEVICE_REQUEST)
                .where(waits(userCode))
                .fetchOptional(kept ->
                        new AskingProgram(kept.getUserCode(), kept.getName(), kept.getAddress(), kept.getBegunAt()))
                .orElseThrow(DeviceLogIns::unknown);
    }

    /** @throws RefusedException if no program waits under that code */
    @Transactional
    public void answer(Person by, String userCode, boolean allow) {
        int answered = db.update(DEVICE_REQUEST)
                .set(DEVICE_REQUEST.ANSWER, allow ? DeviceAnswer.ALLOWED : DeviceAnswer.REFUSED)
                .set(DEVICE_REQUEST.PERSON_ID, allow ? by.id() : null)
                .where(waits(userCode))
                .execute();
        if (answered == 0) throw unknown();
    }

    private Condition waits(String userCode) {
        String typed = userCode.toUpperCase(Locale.ROOT).replaceAll("[^A-Z]", "");
        String code = typed.length() == CODE_LENGTH
                ? typed.substring(0, CODE_LENGTH / 2) + "-" + typed.substring(CODE_LENGTH / 2)
                : "";
        return DEVICE_REQUEST
                .USER_CODE
                .eq(code)
                .and(DEVICE_REQUEST.ANSWER.isNull())
                .and(isFresh());
    }

    private Condition isFresh() {
        return DEVICE_REQUEST.BEGUN_AT.gt(clock.instant().minus(LIFETIME));
    }

    private static RefusedException unknown() {
        return RefusedException.notFound(
                "No program waits for this code. Codes work for ten minutes, once. Start again with: odd login --browser");
    }

    /**
     * The token is given out once; who allowed it may have been disabled since.
     *
     * @throws RefusedException for a code that is unknown, used or too old
     */
    @Transactional
    public DeviceLogInState state(String deviceCode) {
        var kept = db.selectFrom(DEVICE_REQUEST)
                .where(DEVICE_REQUEST.DEVICE_HASH.eq(Hashes.of(deviceCode)), isFresh())
                .forUpdate()
                .fetchOptional()
                .orElseThrow(() ->
                        RefusedException.notFound("This log-in has expired. Start again with: odd login --browser"));
        if (kept.getAnswer() == null) return new DeviceLogInState(DeviceState.WAITING, null);
        kept.delete();
        var person = Optional.ofNullable(kept.getPersonId()).flatMap(people::active);
        if (person.isEmpty()) return new DeviceLogInState(DeviceState.REFUSED, null);
        logIns.succeeded(person.get(), kept.getAddress(), AuditAct.GET_TOKEN);
        return new DeviceLogInState(DeviceState.ALLOWED, tokens.issue(person.get(), kept.getName()));
    }
}
