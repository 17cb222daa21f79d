package dev.oddsentry.service.config;

import static dev.oddsentry.service.db.generated.Tables.INSTALLATION;

import dev.oddsentry.core.finding.Digester;
import java.security.SecureRandom;
import java.time.Clock;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Who this installation is, written at its first start. The seed of its digests stays for as long as its memory does. */
@Component
public class Installation {
    private final DSLContext db;
    private final Clock clock;

    Installation(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
        writeOnce();
    }

    /** Two nodes may start at once on an empty database; the row that came first stands. */
    private void writeOnce() {
        db.insertInto(INSTALLATION)
                .set(INSTALLATION.ONLY_ROW, true)
                .set(INSTALLATION.ID, UUID.randomUUID())
                .set(INSTALLATION.DIGEST_SEED, new SecureRandom().nextLong())
                .set(INSTALLATION.ENCODING_VERSION, Digester.encodingVersion())
                .set(INSTALLATION.CREATED_AT, clock.instant())
                .onConflictDoNothing()
                .execute();
    }

    public Digester digester() {
        var row = db.selectFrom(INSTALLATION).fetchSingle();
        if (row.getEncodingVersion() != Digester.encodingVersion()) {
            throw new IllegalStateException("memory was written with encoding " + row.getEncodingVersion()
                    + ", this version writes " + Digester.encodingVersion());
        }
        return new Digester(row.getDigestSeed());
    }
}
