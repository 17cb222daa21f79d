package dev.oddsentry.core.finding;

import java.util.UUID;

/** A 128-bit hash of canonical bytes: of an identity its key, of the watched columns their fingerprint. */
public record Digest(long high, long low) {

    /** The form in which the database keeps it: all 128 bits, not a version-4 UUID. */
    public UUID asUuid() {
        return new UUID(high, low);
    }

    public static Digest of(UUID uuid) {
        return new Digest(uuid.getMostSignificantBits(), uuid.getLeastSignificantBits());
    }
}
