package dev.oddsentry.core.finding;

import com.dynatrace.hash4j.hashing.Hasher128;
import com.dynatrace.hash4j.hashing.Hashing;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Turns cells into digests with the seed of one installation (xxh3-128), so that nobody can prepare two identities that collide
 * everywhere. The seed must be kept with the memory: with another one every finding would be new.
 */
public final class Digester {
    private final Hasher128 hasher;

    public Digester(long seed) {
        this.hasher = Hashing.xxh3_128(seed);
    }

    /** One whose digests are none of this one's, so that what two personal copies find is never the same finding. */
    public Digester of(String copy) {
        return new Digester(digest(List.of("personal copy", copy)).high());
    }

    /** The version of the encoding behind every digest. */
    public static int encodingVersion() {
        return Encoding.VERSION;
    }

    public Digest digest(List<? extends @Nullable Object> cells) {
        var encoding = Encoding.of(cells);
        var hash = hasher.hashBytesTo128Bits(encoding.bytes(), 0, encoding.length());
        return new Digest(hash.getMostSignificantBits(), hash.getLeastSignificantBits());
    }
}
