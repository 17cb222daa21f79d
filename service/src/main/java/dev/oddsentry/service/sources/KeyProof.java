package dev.oddsentry.service.sources;

import static dev.oddsentry.service.db.generated.Tables.KEY_PROOF;
import static dev.oddsentry.service.db.generated.Tables.SOURCE;

import dev.oddsentry.service.secrets.SecretBox;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Checks at the start that the key is the one under which the records' secrets are sealed: with another, each check would fail, and each link. */
@Component
class KeyProof {
    private static final String SEALED_TEXT = "Odd Sentry";

    /** @throws IllegalStateException if it is another key */
    KeyProof(DSLContext db, SecretBox box) {
        // Records of an earlier version have no proof, but the passwords of sources.
        db.select(SOURCE.PASSWORD_CIPHER)
                .from(SOURCE)
                .where(SOURCE.PASSWORD_CIPHER.isNotNull())
                .limit(1)
                .fetchOptional(SOURCE.PASSWORD_CIPHER)
                .ifPresent(cipher -> prove(box, cipher));
        db.insertInto(KEY_PROOF)
                .set(KEY_PROOF.SEALED, box.seal(SEALED_TEXT))
                .onConflictDoNothing()
                .execute();
        prove(box, db.selectFrom(KEY_PROOF).fetchSingle().getSealed());
    }

    private static void prove(SecretBox box, byte[] cipher) {
        try {
            box.open(cipher);
        } catch (IllegalStateException another) {
            throw new IllegalStateException(
                    "The key is not the one with which the secrets in these records were sealed. Start with the key that was used before (ODDSENTRY_KEY, or the"
                            + " file that oddsentry.key-file names).",
                    another);
        }
    }
}
