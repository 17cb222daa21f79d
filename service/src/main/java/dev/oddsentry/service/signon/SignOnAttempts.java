package dev.oddsentry.service.signon;

import static dev.oddsentry.service.db.generated.Tables.SIGN_ON_ATTEMPT;

import dev.oddsentry.service.secrets.Hashes;
import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/**
 * Browsers that were sent to a provider. Each comes back once, within ten minutes, to whatever node, and must be the browser that was sent. Of what
 * it shows only hashes are kept.
 */
@Component
class SignOnAttempts {
    private static final Duration LIFETIME = Duration.ofMinutes(10);

    /** Anybody can begin one. */
    private static final int MOST = 10_000;

    private final DSLContext db;
    private final Clock clock;

    SignOnAttempts(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /**
     * @param state what the provider is to say again
     * @param nonce what its ID token must name
     * @param verifier what proves to it who asks for the tokens
     * @param returnTo a page of the console
     */
    record Attempt(String state, String nonce, String verifier, String returnTo) {}

    void keep(IdentityProvider provider, Attempt attempt, String browser) {
        db.deleteFrom(SIGN_ON_ATTEMPT)
                .where(SIGN_ON_ATTEMPT.BEGUN_AT.lt(clock.instant().minus(LIFETIME)))
                .execute();
        if (db.fetchCount(SIGN_ON_ATTEMPT) >= MOST)
            throw new SignOnException(SignOnRefusal.UNREACHABLE, "too many log-ins are under way");
        db.insertInto(SIGN_ON_ATTEMPT)
                .set(SIGN_ON_ATTEMPT.STATE_HASH, Hashes.of(attempt.state()))
                .set(SIGN_ON_ATTEMPT.BROWSER_HASH, Hashes.of(browser))
                .set(SIGN_ON_ATTEMPT.PROVIDER_ID, provider.id())
                .set(SIGN_ON_ATTEMPT.NONCE, attempt.nonce())
                .set(SIGN_ON_ATTEMPT.CODE_VERIFIER, attempt.verifier())
                .set(SIGN_ON_ATTEMPT.RETURN_TO, attempt.returnTo())
                .set(SIGN_ON_ATTEMPT.BEGUN_AT, clock.instant())
                .execute();
    }

    /** Empty for a state that was not given out to this browser for this provider, that has come back before, or that is too old. */
    Optional<Attempt> take(IdentityProvider provider, String state, String browser) {
        return db.deleteFrom(SIGN_ON_ATTEMPT)
                .where(
                        SIGN_ON_ATTEMPT.STATE_HASH.eq(Hashes.of(state)),
                        SIGN_ON_ATTEMPT.BROWSER_HASH.eq(Hashes.of(browser)),
                        SIGN_ON_ATTEMPT.PROVIDER_ID.eq(provider.id()))
                .returning()
                .fetchOptional()
                .filter(kept -> kept.getBegunAt().isAfter(clock.instant().minus(LIFETIME)))
                .map(kept -> new Attempt(state, kept.getNonce(), kept.getCodeVerifier(), kept.getReturnTo()));
    }
}
