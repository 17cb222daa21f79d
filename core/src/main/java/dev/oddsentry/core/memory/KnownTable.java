package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * The current state of every finding of a rule, in one table of open addressing: about 65 bytes a finding, so that a million of them
 * fit beside the rows that stream by. Rows that are not findings go in too, by their key alone, so that a second row of the same
 * identity is seen. Belongs to one thread.
 */
public final class KnownTable {
    /** Words of one place: key, fingerprint, and the number with what fits beside it. */
    private static final int WORDS = 5;

    private static final double FULL = 0.66;
    private static final int LEAST = 64;

    private static final long TAKEN = 1L << 63;
    private static final long SEEN = 1L << 62;
    private static final long NO_DATA = 1L << 61;
    private static final long DETAILED = 1L << 60;
    private static final int STATE_AT = 58;
    private static final int SEVERITY_AT = 56;
    private static final long TWO_BITS = 0b11;
    private static final long NUMBER = (1L << SEVERITY_AT) - 1;

    private static final FindingState[] STATES = FindingState.values();
    private static final Severity[] SEVERITIES = Severity.values();

    private long[] words;
    private int places;
    private int taken;
    /** Of the few that count towards something. */
    private final Map<Long, Details> details = new HashMap<>();

    private final long[] inState = new long[STATES.length];

    private record Details(
            MinimumDuration.@Nullable Start held,
            MinimumDuration.@Nullable Start missed,
            MinimumDuration.@Nullable Start better) {}

    /** @param expected about how many findings and rows it will hold; it grows where they are more */
    public KnownTable(long expected) {
        // Room for some new ones, since a table that grows is held twice for a moment.
        long withNew = expected + expected / 16;
        places = (int) Math.min(Integer.MAX_VALUE / WORDS - 1, Math.max(LEAST, (long) (withNew / FULL) + 1));
        words = new long[places * WORDS];
    }

    public static KnownTable of(Iterable<StoredFinding> findings) {
        var table = new KnownTable(0);
        findings.forEach(table::add);
        return table;
    }

    /** @throws IllegalStateException if there are two of that key */
    public void add(StoredFinding finding) {
        add(finding.id(), finding.key(), finding.now());
    }

    public void add(long id, Digest key, CurrentFinding now) {
        if (id <= 0 || id > NUMBER) throw new IllegalStateException("no number of a finding: " + id);
        int place = placeOf(key.high(), key.low());
        if (words[place + 4] != 0) throw new IllegalStateException("two findings of the key " + key);
        boolean detailed = now.held() != null || now.missed() != null || now.better() != null;
        if (detailed) details.put(id, new Details(now.held(), now.missed(), now.better()));
        put(
                place,
                key,
                now.fingerprint(),
                TAKEN
                        | (detailed ? DETAILED : 0)
                        | (now.noData() ? NO_DATA : 0)
                        | ((long) now.state().ordinal() << STATE_AT)
                        | ((long) now.severity().ordinal() << SEVERITY_AT)
                        | id);
        inState[now.state().ordinal()]++;
    }

    /**
     * Marks a row of this identity as seen.
     *
     * @return false: one was seen before
     */
    boolean see(Digest key) {
        int place = placeOf(key.high(), key.low());
        long meta = words[place + 4];
        if ((meta & SEEN) != 0) return false;
        if (meta == 0) put(place, key, key, TAKEN | SEEN);
        else words[place + 4] = meta | SEEN;
        return true;
    }

    public @Nullable StoredFinding find(Digest key) {
        int place = placeOf(key.high(), key.low());
        return isFinding(words[place + 4]) ? knownAt(place) : null;
    }

    /** Every finding of which no row was seen. */
    void forEachNotSeen(Consumer<StoredFinding> act) {
        for (int place = 0; place < words.length; place += WORDS) {
            long meta = words[place + 4];
            if (isFinding(meta) && (meta & SEEN) == 0) act.accept(knownAt(place));
        }
    }

    /** How many findings were in this state before the check. */
    public long countOf(FindingState state) {
        return inState[state.ordinal()];
    }

    private static boolean isFinding(long meta) {
        return (meta & NUMBER) != 0;
    }

    private StoredFinding knownAt(int place) {
        long meta = words[place + 4];
        long id = meta & NUMBER;
        var more = (meta & DETAILED) == 0 ? null : details.get(id);
        var now = new CurrentFinding(
                STATES[(int) (meta >> STATE_AT & TWO_BITS)],
                SEVERITIES[(int) (meta >> SEVERITY_AT & TWO_BITS)],
                new Digest(words[place + 2], words[place + 3]),
                more == null ? null : more.held(),
                more == null ? null : more.missed(),
                more == null ? null : more.better(),
                (meta & NO_DATA) != 0);
        return new StoredFinding(id, new Digest(words[place], words[place + 1]), now);
    }

    private void put(int place, Digest key, Digest fingerprint, long meta) {
        words[place] = key.high();
        words[place + 1] = key.low();
        words[place + 2] = fingerprint.high();
        words[place + 3] = fingerprint.low();
        words[place + 4] = meta;
        if (++taken > places * FULL) grow();
    }

    /** The place of the key, or the free one where it belongs. */
    private int placeOf(long high, long low) {
        // The keys are digests, so their bits are spread evenly already.
        int place = (int) Math.unsignedMultiplyHigh(low, places);
        while (true) {
            int at = place * WORDS;
            if (words[at + 4] == 0 || (words[at] == high && words[at + 1] == low)) return at;
            place = place + 1 == places ? 0 : place + 1;
        }
    }

    private void grow() {
        long[] before = words;
        places = Math.toIntExact(Math.min(Integer.MAX_VALUE / WORDS - 1, places * 3L / 2));
        words = new long[Math.multiplyExact(places, WORDS)];
        for (int at = 0; at < before.length; at += WORDS) {
            if (before[at + 4] != 0) System.arraycopy(before, at, words, placeOf(before[at], before[at + 1]), WORDS);
        }
    }
}
